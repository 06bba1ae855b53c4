//! Serving: connections with their limits, and an end that nobody can hold up.

use crate::shared::guard::Peer;
use axum::Router;
use hyper_util::rt::{TokioIo, TokioTimer};
use hyper_util::server::graceful::GracefulShutdown;
use hyper_util::service::TowerToHyperService;
use std::sync::Arc;
use std::time::Duration;
use tokio::net::TcpListener;
use tokio::sync::Semaphore;
use tokio_io_timeout::TimeoutStream;

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
    router: Router,
    stop: impl Future<Output = ()> + Send + 'static,
) -> std::io::Result<()> {
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
        let mut stream = TimeoutStream::new(stream);
        stream.set_write_timeout(Some(WRITE));
        let io = TokioIo::new(Box::pin(stream));
        let service = tower::ServiceBuilder::new()
            .map_request(move |mut request: hyper::Request<hyper::body::Incoming>| {
                request.extensions_mut().insert(Peer(peer.ip()));
                request
            })
            .service(router.clone());
        let connection = http.serve_connection(io, TowerToHyperService::new(service));
        let connection = graceful.watch(connection);
        tokio::spawn(async move {
            if let Err(e) = connection.await {
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
