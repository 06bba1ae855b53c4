//! Serving: where it listens, what it is called, and how it ends.

use anyhow::{Context, Result, bail};
use jiff::Timestamp;
use std::net::{IpAddr, SocketAddr};
use std::path::PathBuf;
use std::sync::Arc;
use std::time::Duration;
use store::Db;
use tokio::net::TcpListener;
use tokio::signal::unix::{SignalKind, signal};
use web::tls::{Certificates, TlsSource};
use web::{SignIn, Site};

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
    /// Off: whoever sits at this machine is the owner of its kitchens; no other machine is let in.
    #[arg(long, env = "SLOW_RISE_SIGN_IN", default_value = "on")]
    sign_in: Asked,
    /// The address that people type, such as https://pizza.example: the only name besides this machine's own that is
    /// answered, and what codes, labels and feeds give away.
    #[arg(long, env = "SLOW_RISE_PUBLIC_URL")]
    public_url: Option<String>,
    /// Speak https with a small authority of this server's own, which tablets are shown how to trust.
    #[arg(long, env = "SLOW_RISE_TLS", conflicts_with = "tls_certificate")]
    tls: bool,
    /// Where that authority and its certificate are kept; without more, among this user's data.
    #[arg(long, env = "SLOW_RISE_TLS_DIR")]
    tls_dir: Option<PathBuf>,
    /// Speak https with a certificate that is given: PEM, with those above it. It is read again every hour.
    #[arg(long, env = "SLOW_RISE_TLS_CERTIFICATE", requires = "tls_key")]
    tls_certificate: Option<PathBuf>,
    /// The key of that certificate: PEM.
    #[arg(long, env = "SLOW_RISE_TLS_KEY", requires = "tls_certificate")]
    tls_key: Option<PathBuf>,
    /// The address of a proxy whose X-Forwarded-For is believed in the log; may be said several times.
    #[arg(long)]
    trusted_proxy: Vec<IpAddr>,
}

/// Whether who comes is asked to sign in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, clap::ValueEnum)]
enum Asked {
    On,
    Off,
}

/// Where the authority is kept when nobody says: where the system's services keep theirs, or among the user's data.
fn own_dir() -> Result<PathBuf> {
    let of = |name: &str| std::env::var_os(name).map(PathBuf::from);
    let state = of("STATE_DIRECTORY");
    let data = || of("XDG_DATA_HOME").map(|d| d.join("slow-rise"));
    let home = || of("HOME").map(|d| d.join(".local/share/slow-rise"));
    let base = state.or_else(data).or_else(home);
    Ok(base
        .context("say where the authority is kept: --tls-dir DIR")?
        .join("tls"))
}

/// What it speaks https with, if it does.
fn certificates(o: &Options, site: &Site) -> Result<Option<Arc<Certificates>>> {
    let source = match (&o.tls_certificate, &o.tls_key) {
        (Some(certificate), Some(key)) => TlsSource::Given {
            certificate: certificate.clone(),
            key: key.clone(),
        },
        _ if o.tls => TlsSource::Own {
            dir: o.tls_dir.clone().map_or_else(own_dir, Ok)?,
            names: site.names(),
        },
        _ => return Ok(None),
    };
    if o.public_url
        .as_deref()
        .is_some_and(|u| u.starts_with("http:"))
    {
        bail!("people reach it by https then: --public-url https://NAME:PORT");
    }
    Ok(Some(Certificates::of(source, Timestamp::now())?))
}

pub async fn run(o: Options) -> Result<()> {
    let open = !o.listen.is_loopback() || o.public_url.is_some();
    if open && o.sign_in == Asked::Off {
        bail!(
            "whoever reaches it from a network signs in: leave out --sign-in off, or --listen and --public-url"
        );
    }
    if !o.listen.is_loopback() && o.public_url.is_none() {
        bail!(
            "say under which name people reach {}: --public-url http://NAME:PORT; no other name is answered",
            o.listen
        );
    }
    let site = Site::new(o.public_url.as_deref(), o.trusted_proxy.clone())
        .map_err(anyhow::Error::msg)
        .context("--public-url")?;
    let certificates = certificates(&o, &site).context("https")?;
    let site = site.secured_by(certificates);
    let db = Db::at(&o.database.database_url)?;
    let listener = bind(o.listen, o.port).await?;
    let scheme = match site.certificates() {
        Some(_) => "https",
        None => "http",
    };
    println!("Open {scheme}://{}", listener.local_addr()?);
    if let Some(trust) = site.trust() {
        println!("A tablet trusts it at {}", site.in_the_clear("/trust"));
        println!("Fingerprint {}", trust.fingerprint());
    }
    // The database may come later: pages say so until it is there.
    let sign_in = match o.sign_in {
        Asked::On => SignIn::On,
        Asked::Off => SignIn::Off,
    };
    let serving = web::serve(listener, db.clone(), (site, sign_in), asked_to_stop());
    let schema = async {
        brought_up_to_date(&db).await;
        std::future::pending::<()>().await
    };
    tokio::select! { ended = serving => ended?, () = schema => {} }
    // A connection that hangs in a statement must not hold the end up.
    let _ = tokio::time::timeout(Duration::from_secs(1), db.close()).await;
    Ok(())
}

/// Tries until the schema is as this program needs it, and says what of the database is not as it should be.
async fn brought_up_to_date(db: &Db) {
    let mut pause = Duration::from_millis(250);
    loop {
        match store::migrate(db).await {
            Ok(()) => break,
            Err(e) => {
                tracing::warn!(cause = %e, "the schema is not up to date yet; trying again");
                tokio::time::sleep(pause).await;
                pause = (pause * 2).min(Duration::from_secs(5));
            }
        }
    }
    match store::unfit(db).await {
        Ok(all) => {
            for sentence in all {
                tracing::warn!("the database is not set up as it should be: {sentence}");
            }
        }
        Err(e) => tracing::warn!(cause = %e, "the settings of the database could not be read"),
    }
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
