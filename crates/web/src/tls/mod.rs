//! https, spoken by the program itself: with a certificate that is given, or with one of a small authority of its own.

mod authority;
mod wire;

pub use authority::TlsError;
pub use wire::{Wire, answered};

use authority::{Chain, given, vouched};
use jiff::Timestamp;
use rustls::crypto::ring::{default_provider, sign};
use rustls::pki_types::CertificateDer;
use rustls::server::{ClientHello, ResolvesServerCert};
use rustls::sign::CertifiedKey;
use sha2::{Digest, Sha256};
use std::path::PathBuf;
use std::sync::{Arc, RwLock};
use std::time::Duration;
use tokio_rustls::TlsAcceptor;

/// So often it is looked whether the certificate is to be renewed, or was.
const LOOKED: Duration = Duration::from_secs(3600);

/// Where certificates come from.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum TlsSource {
    /// Files that somebody else makes and renews.
    Given { certificate: PathBuf, key: PathBuf },
    /// A folder with an authority of one's own, for these names; the first is the one that people type.
    Own { dir: PathBuf, names: Vec<String> },
}

/// What a tablet is to trust.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Trust {
    /// The authority's certificate.
    pub der: Vec<u8>,
    /// For which names it vouches.
    pub names: Vec<String>,
}

impl Trust {
    /// What is compared by eye: SHA-256 in pairs.
    pub fn fingerprint(&self) -> String {
        let pairs: Vec<String> = Sha256::digest(&self.der)
            .iter()
            .map(|b| format!("{b:02X}"))
            .collect();
        pairs.join(":")
    }
}

/// The certificate that is shown to whoever comes, renewed while the program runs.
#[derive(Debug)]
pub struct Certificates {
    source: TlsSource,
    held: RwLock<Arc<CertifiedKey>>,
}

fn loaded(source: &TlsSource, now: Timestamp) -> Result<Arc<CertifiedKey>, TlsError> {
    let Chain { certificates, key } = match source {
        TlsSource::Given { certificate, key } => given(certificate, key)?,
        TlsSource::Own { dir, names } => vouched(dir, names, now)?,
    };
    let held = CertifiedKey::new(certificates, sign::any_supported_type(&key)?);
    held.keys_match()?;
    Ok(Arc::new(held))
}

impl Certificates {
    /// Errors: files that are missing or something else, a folder that cannot be written.
    pub fn of(source: TlsSource, now: Timestamp) -> Result<Arc<Certificates>, TlsError> {
        let held = RwLock::new(loaded(&source, now)?);
        Ok(Arc::new(Certificates { source, held }))
    }

    fn now(&self) -> Arc<CertifiedKey> {
        self.held.read().unwrap_or_else(|e| e.into_inner()).clone()
    }

    /// The certificates that are shown, the server's first.
    pub fn shown(&self) -> Vec<CertificateDer<'static>> {
        self.now().cert.clone()
    }

    /// What a tablet is to trust; nothing where the certificate was given.
    pub fn trust(&self) -> Option<Trust> {
        let TlsSource::Own { names, .. } = &self.source else {
            return None;
        };
        let above = self.now().cert.last().cloned()?;
        Some(Trust {
            der: above.to_vec(),
            names: names.clone(),
        })
    }

    /// Looks again; `true` when another certificate is shown from now on.
    ///
    /// Errors: as [`Certificates::of`]; the former certificate goes on being shown.
    pub fn look_again(&self, now: Timestamp) -> Result<bool, TlsError> {
        let found = loaded(&self.source, now)?;
        let mut held = self.held.write().unwrap_or_else(|e| e.into_inner());
        let other = held.cert != found.cert;
        *held = found;
        Ok(other)
    }

    /// Looks again every hour, for as long as the program runs.
    pub async fn keep_fresh(self: Arc<Self>) {
        loop {
            tokio::time::sleep(LOOKED).await;
            match self.look_again(Timestamp::now()) {
                Ok(true) => tracing::info!("another certificate is shown from now on"),
                Ok(false) => {}
                Err(e) => tracing::error!(cause = %e, "the certificate could not be renewed"),
            }
        }
    }

    /// What takes connections with it.
    ///
    /// Errors: none that this program's choice of protocols can meet.
    pub fn acceptor(self: &Arc<Self>) -> Result<TlsAcceptor, TlsError> {
        let mut config = rustls::ServerConfig::builder_with_provider(default_provider().into())
            .with_safe_default_protocol_versions()?
            .with_no_client_auth()
            .with_cert_resolver(self.clone());
        config.alpn_protocols = vec![b"http/1.1".to_vec()];
        Ok(TlsAcceptor::from(Arc::new(config)))
    }
}

impl ResolvesServerCert for Certificates {
    fn resolve(&self, _: ClientHello<'_>) -> Option<Arc<CertifiedKey>> {
        Some(self.now())
    }
}

#[cfg(test)]
mod tests;
