//! Serving: where it listens, and how it ends.

use anyhow::{Result, bail};
use std::net::{IpAddr, SocketAddr};
use tokio::net::TcpListener;
use tokio::signal::unix::{SignalKind, signal};

/// Ports that are tried after the asked one.
const PORTS: u16 = 200;

#[derive(clap::Args)]
pub struct Options {
    #[command(flatten)]
    database: super::Database,
    /// Where to listen.
    #[arg(long, default_value = "127.0.0.1")]
    listen: IpAddr,
    /// The first port to try; when it is taken, the next free one is used. 0 lets the system choose.
    #[arg(long, env = "PORT", default_value_t = 8080)]
    port: u16,
    /// There is no sign-in yet: whoever reaches the server reads and writes the kitchen. Without this flag it
    /// listens on this machine alone.
    #[arg(long)]
    open_to_network: bool,
}

pub async fn run(o: Options) -> Result<()> {
    if !o.listen.is_loopback() && !o.open_to_network {
        bail!(
            "{} is reachable from other machines and there is no sign-in yet; listen on 127.0.0.1, or say --open-to-network",
            o.listen
        );
    }
    let pool = store::pool(&o.database.database_url)?;
    // The database may come later: pages say so until it is there.
    match store::migrate(&pool).await {
        Ok(()) => {}
        Err(e) if store::ping(&pool).await.is_err() => {
            tracing::warn!(cause = %e, "the database is not there yet")
        }
        Err(e) => return Err(e.into()),
    }
    let listener = bind(o.listen, o.port).await?;
    println!("Open http://{}", listener.local_addr()?);
    web::serve(listener, pool.clone(), asked_to_stop()).await?;
    pool.close().await;
    Ok(())
}

/// The first free port from the asked one on; bound here, so that nothing can take it in between.
async fn bind(listen: IpAddr, port: u16) -> Result<TcpListener> {
    let last = port.saturating_add(PORTS);
    let mut port = port;
    loop {
        match TcpListener::bind(SocketAddr::new(listen, port)).await {
            Ok(l) => return Ok(l),
            Err(e) if e.kind() == std::io::ErrorKind::AddrInUse && port != 0 && port < last => {
                port += 1
            }
            Err(e) => bail!("cannot listen on {listen}:{port}: {e}"),
        }
    }
}

async fn asked_to_stop() {
    let interrupted = tokio::signal::ctrl_c();
    match signal(SignalKind::terminate()) {
        Ok(mut terminated) => {
            tokio::select! { _ = interrupted => {}, _ = terminated.recv() => {} }
        }
        Err(_) => {
            let _ = interrupted.await;
        }
    }
}
