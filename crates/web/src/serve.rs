//! Serving: connections with their limits, and an end that nobody can hold up.

use crate::shared::guard::{InTheClear, Peer};
use crate::tls::{self, Certificates};
use axum::Router;
use hyper_util::rt::{TokioIo, TokioTimer};
use hyper_util::server::graceful::GracefulShutdown;
use hyper_util::service::TowerToHyperService;
use std::sync::Arc;
use std::time::Duration;
use tokio::net::TcpListener;
use tokio::sync::Semaphore;

/// The head of a request comes in this time, the first and every later one of a connection.
const HEAD: Duration = Duration::from_secs(10);
/// Whoever takes nothing of an answer for so long is gone.
const WRITE: Duration = Duration::from_secs(60);
/// Connections at once; who comes then waits until one ends.
const MOST: usize = 1024;
/// Answers that are under way may end in this time once the program is asked to stop.
const LAST_ANSWERS: Duration = Duration::from_secs(7);

/// Serves until `stop` comes, then lets answers that are under way end, for some seconds.
pub async fn serve(
    listener: TcpListener,
    (router, certificates): (Router, Option<Arc<Certificates>>),
    stop: impl Future<Output = ()> + Send + 'static,
) -> std::io::Result<()> {
    let acceptor = match &certificates {
        Some(c) => Some(c.acceptor().map_err(std::io::Error::other)?),
        None => None,
    };
    let mut http = hyper::server::conn::http1::Builder::new();
    http.timer(TokioTimer::new())
        .header_read_timeout(HEAD)
        .max_buf_size(64 * 1024);
    let room = Arc::new(Semaphore::new(MOST));
    let graceful = GracefulShutdown::new();
    tokio::pin!(stop);
    loop {
        let Ok(seat) = room.clone().acquire_owned().await else {
            break;
        };
        let came = tokio::select! {
            came = listener.accept() => came,
            _ = &mut stop => break,
        };
        let (stream, peer) = match came {
            Ok(c) => c,
            Err(e) => {
                // Out of files, or gone before it was taken: a moment later it may go on.
                tracing::warn!(cause = %e, "a connection could not be taken");
                tokio::time::sleep(Duration::from_millis(50)).await;
                continue;
            }
        };
        let _ = stream.set_nodelay(true);
        let (acceptor, router, http) = (acceptor.clone(), router.clone(), http.clone());
        let watched = graceful.watcher();
        tokio::spawn(async move {
            let wire = match tls::answered(stream, acceptor.as_ref(), (HEAD, WRITE)).await {
                Ok(wire) => wire,
                Err(e) => {
                    tracing::debug!(cause = %e, "a connection was not understood");
                    return;
                }
            };
            let in_the_clear = acceptor.is_some() && !wire.is_secured();
            let service = tower::ServiceBuilder::new()
                .map_request(move |mut request: hyper::Request<hyper::body::Incoming>| {
                    request.extensions_mut().insert(Peer(peer.ip()));
                    if in_the_clear {
                        request.extensions_mut().insert(InTheClear);
                    }
                    request
                })
                .service(router);
            let io = TokioIo::new(wire);
            let connection = http.serve_connection(io, TowerToHyperService::new(service));
            if let Err(e) = watched.watch(connection).await {
                tracing::debug!(cause = %e, "a connection ended");
            }
            drop(seat);
        });
    }
    drop(listener);
    if tokio::time::timeout(LAST_ANSWERS, graceful.shutdown())
        .await
        .is_err()
    {
        tracing::warn!(
            "some answers were still under way after {LAST_ANSWERS:?}; they are cut off"
        );
    }
    Ok(())
}
