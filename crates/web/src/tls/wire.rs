//! A connection as it comes: secured, or in the clear from somebody who typed the address without its https.

use std::io;
use std::pin::Pin;
use std::task::{Context, Poll};
use std::time::Duration;
use tokio::io::{AsyncRead, AsyncWrite, ReadBuf};
use tokio::net::TcpStream;
use tokio_io_timeout::TimeoutStream;
use tokio_rustls::TlsAcceptor;
use tokio_rustls::server::TlsStream;

/// With this byte every secured connection begins, and no request in the clear.
const HANDSHAKE: u8 = 0x16;

/// A connection that can be read and written.
pub enum Wire {
    Clear(Pin<Box<TimeoutStream<TcpStream>>>),
    Secured(Box<TlsStream<Pin<Box<TimeoutStream<TcpStream>>>>>),
}

impl Wire {
    pub fn is_secured(&self) -> bool {
        matches!(self, Wire::Secured(_))
    }
}

/// Answers a connection: secures it where it asks for that within a time; what comes in the clear stays so.
///
/// Errors: a connection that says nothing in time, or nothing that is understood.
pub async fn answered(
    stream: TcpStream,
    acceptor: Option<&TlsAcceptor>,
    (within, writes_within): (Duration, Duration),
) -> io::Result<Wire> {
    let mut first = [0];
    let asks = match acceptor {
        Some(acceptor) => {
            let seen = tokio::time::timeout(within, stream.peek(&mut first)).await??;
            (seen > 0 && first[0] == HANDSHAKE).then_some(acceptor)
        }
        None => None,
    };
    let mut stream = TimeoutStream::new(stream);
    stream.set_write_timeout(Some(writes_within));
    let stream = Box::pin(stream);
    Ok(match asks {
        Some(acceptor) => {
            let secured = tokio::time::timeout(within, acceptor.accept(stream)).await??;
            Wire::Secured(Box::new(secured))
        }
        None => Wire::Clear(stream),
    })
}

impl AsyncRead for Wire {
    fn poll_read(
        self: Pin<&mut Self>,
        cx: &mut Context<'_>,
        buf: &mut ReadBuf<'_>,
    ) -> Poll<io::Result<()>> {
        match self.get_mut() {
            Wire::Clear(s) => s.as_mut().poll_read(cx, buf),
            Wire::Secured(s) => Pin::new(s).poll_read(cx, buf),
        }
    }
}

impl AsyncWrite for Wire {
    fn poll_write(
        self: Pin<&mut Self>,
        cx: &mut Context<'_>,
        buf: &[u8],
    ) -> Poll<io::Result<usize>> {
        match self.get_mut() {
            Wire::Clear(s) => s.as_mut().poll_write(cx, buf),
            Wire::Secured(s) => Pin::new(s).poll_write(cx, buf),
        }
    }
    fn poll_flush(self: Pin<&mut Self>, cx: &mut Context<'_>) -> Poll<io::Result<()>> {
        match self.get_mut() {
            Wire::Clear(s) => s.as_mut().poll_flush(cx),
            Wire::Secured(s) => Pin::new(s).poll_flush(cx),
        }
    }
    fn poll_shutdown(self: Pin<&mut Self>, cx: &mut Context<'_>) -> Poll<io::Result<()>> {
        match self.get_mut() {
            Wire::Clear(s) => s.as_mut().poll_shutdown(cx),
            Wire::Secured(s) => Pin::new(s).poll_shutdown(cx),
        }
    }
}
