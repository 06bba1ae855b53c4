//! A small authority of this server alone: it vouches for the names under which the server is reached, and for no other, so
//! that a tablet that trusts it gives nothing away but these.
//!
//! Two files in one folder, each a heading, a key and a certificate: `authority.pem` lasts ten years, `server.pem` ninety days.

use jiff::{SignedDuration, Timestamp};
use rcgen::{
    BasicConstraints, CertificateParams, CidrSubnet, DistinguishedName, DnType,
    ExtendedKeyUsagePurpose, GeneralSubtree, IsCa, Issuer, KeyPair, KeyUsagePurpose,
    NameConstraints,
};
use rustls::pki_types::pem::PemObject;
use rustls::pki_types::{CertificateDer, PrivateKeyDer};
use std::fs::{self, DirBuilder, OpenOptions};
use std::io::{self, Write};
use std::net::IpAddr;
use std::os::unix::fs::{DirBuilderExt, OpenOptionsExt};
use std::path::{Path, PathBuf};
use time::OffsetDateTime;

/// An authority lasts so long.
const AUTHORITY_LASTS: SignedDuration = SignedDuration::from_hours(10 * 365 * 24);
/// A server's certificate lasts so long: tablets take none of longer than two years from an authority of one's own.
const SERVER_LASTS: SignedDuration = SignedDuration::from_hours(90 * 24);
/// It is made anew so long before it ends.
const AHEAD: SignedDuration = SignedDuration::from_hours(30 * 24);
/// Clocks of tablets are off by less.
const CLOCKS_OFF: SignedDuration = SignedDuration::from_hours(24);

/// Why there is no certificate.
#[derive(Debug, thiserror::Error)]
pub enum TlsError {
    #[error("{path}: {cause}")]
    File { path: PathBuf, cause: io::Error },
    #[error("{0} cannot be read as a key and a certificate; take it away, and another is made")]
    Unreadable(PathBuf),
    #[error("no certificate can be made: {0}")]
    Making(#[from] rcgen::Error),
    #[error("the certificate cannot be served: {0}")]
    Serving(#[from] rustls::Error),
}

/// A key with its certificate, and those above it.
pub struct Chain {
    pub certificates: Vec<CertificateDer<'static>>,
    pub key: PrivateKeyDer<'static>,
}

/// What a file says of itself before its key.
#[derive(Debug, Clone, PartialEq, Eq)]
struct Heading {
    /// For whom it vouches.
    names: Vec<String>,
    /// What it is called.
    called: String,
    ends_at: Timestamp,
}

impl Heading {
    fn written(&self) -> String {
        let Heading {
            names,
            called,
            ends_at,
        } = self;
        format!(
            "called: {called}\nnames: {}\nends: {ends_at}\n",
            names.join(" ")
        )
    }
    fn read(text: &str) -> Option<Heading> {
        let of = |key: &str| text.lines().find_map(|l| l.strip_prefix(key));
        Some(Heading {
            called: of("called: ")?.to_string(),
            names: of("names: ")?.split(' ').map(str::to_string).collect(),
            ends_at: of("ends: ")?.parse().ok()?,
        })
    }
}

/// A file as it was read.
struct Kept {
    heading: Heading,
    key: KeyPair,
    certificates: Vec<CertificateDer<'static>>,
}

fn kept(path: &Path) -> Result<Option<Kept>, TlsError> {
    let text = match fs::read_to_string(path) {
        Ok(text) => text,
        Err(e) if e.kind() == io::ErrorKind::NotFound => return Ok(None),
        Err(cause) => {
            return Err(TlsError::File {
                path: path.into(),
                cause,
            });
        }
    };
    let unreadable = || TlsError::Unreadable(path.into());
    let heading = Heading::read(&text).ok_or_else(unreadable)?;
    let der = PrivateKeyDer::from_pem_slice(text.as_bytes()).map_err(|_| unreadable())?;
    let key = KeyPair::try_from(der.secret_der()).map_err(|_| unreadable())?;
    let all: Result<Vec<_>, _> = CertificateDer::pem_slice_iter(text.as_bytes()).collect();
    let certificates = all.ok().filter(|c| !c.is_empty()).ok_or_else(unreadable)?;
    Ok(Some(Kept {
        heading,
        key,
        certificates,
    }))
}

/// Puts a file where nobody else reads it, whole or not at all.
fn keep(
    path: &Path,
    heading: &Heading,
    key: &KeyPair,
    certificates: &[CertificateDer<'static>],
) -> Result<(), TlsError> {
    let beside = path.with_extension(format!("{}.new", std::process::id()));
    let write = || -> io::Result<()> {
        let _ = fs::remove_file(&beside);
        let mut options = OpenOptions::new();
        let mut file = options
            .write(true)
            .create_new(true)
            .mode(0o600)
            .open(&beside)?;
        file.write_all(heading.written().as_bytes())?;
        file.write_all(key.serialize_pem().as_bytes())?;
        for der in certificates {
            let text = pem::encode(&pem::Pem::new("CERTIFICATE", der.as_ref()));
            file.write_all(text.as_bytes())?;
        }
        file.sync_all()?;
        fs::rename(&beside, path)
    };
    write().map_err(|cause| TlsError::File {
        path: path.into(),
        cause,
    })
}

fn instant(t: Timestamp) -> OffsetDateTime {
    OffsetDateTime::from_unix_timestamp(t.as_second()).unwrap_or(OffsetDateTime::UNIX_EPOCH)
}

/// What is common to both: what it is called, and how long it holds.
fn params(heading: &Heading, now: Timestamp) -> CertificateParams {
    let mut called = DistinguishedName::new();
    called.push(DnType::CommonName, heading.called.as_str());
    let mut all = CertificateParams::default();
    all.distinguished_name = called;
    all.not_before = instant(now - CLOCKS_OFF);
    all.not_after = instant(heading.ends_at);
    all
}

/// An authority for these names and no others.
fn authority_params(heading: &Heading, now: Timestamp) -> CertificateParams {
    let only = |name: &String| match name.parse::<IpAddr>() {
        Ok(ip) => {
            let whole = if ip.is_ipv4() { 32 } else { 128 };
            GeneralSubtree::IpAddress(CidrSubnet::from_addr_prefix(ip, whole))
        }
        Err(_) => GeneralSubtree::DnsName(name.clone()),
    };
    let mut all = params(heading, now);
    all.is_ca = IsCa::Ca(BasicConstraints::Constrained(0));
    all.key_usages = vec![KeyUsagePurpose::KeyCertSign, KeyUsagePurpose::CrlSign];
    all.name_constraints = Some(NameConstraints {
        permitted_subtrees: heading.names.iter().map(only).collect(),
        excluded_subtrees: vec![],
    });
    all
}

/// The authority in a folder, made where there is none, where it ends, or where it vouches for other names.
fn authority(path: &Path, names: &[String], now: Timestamp) -> Result<Kept, TlsError> {
    if let Some(kept) = kept(path)? {
        let lasts = kept.heading.ends_at > now + SERVER_LASTS;
        if lasts && kept.heading.names == names {
            return Ok(kept);
        }
        tracing::warn!(
            "the authority for {} is replaced by one for {}: tablets have to trust it anew",
            kept.heading.names.join(", "),
            names.join(", ")
        );
    }
    let key = KeyPair::generate()?;
    let heading = Heading {
        names: names.to_vec(),
        called: format!("Slow Rise at {}, {}", names[0], now.strftime("%Y-%m-%d")),
        ends_at: now + AUTHORITY_LASTS,
    };
    let certificate = authority_params(&heading, now).self_signed(&key)?;
    let certificates = vec![certificate.der().clone()];
    keep(path, &heading, &key, &certificates)?;
    Ok(Kept {
        heading,
        certificates,
        key,
    })
}

fn own_key(key: &KeyPair) -> PrivateKeyDer<'static> {
    PrivateKeyDer::Pkcs8(key.serialize_der().into())
}

/// The server's certificate from the authority in a folder, both made where they are missing or end soon.
///
/// `names` are those under which the server is reached, the first one as people type it; there is at least one. The second of
/// the certificates that come back is the authority's.
///
/// Errors: a folder that cannot be written, a file that is something else.
pub fn vouched(dir: &Path, names: &[String], now: Timestamp) -> Result<Chain, TlsError> {
    let mut folder = DirBuilder::new();
    folder.recursive(true).mode(0o700);
    folder.create(dir).map_err(|cause| TlsError::File {
        path: dir.into(),
        cause,
    })?;
    let above = authority(&dir.join("authority.pem"), names, now)?;
    let path = dir.join("server.pem");
    if let Some(kept) = kept(&path)? {
        let fresh = kept.heading.ends_at - AHEAD > now && kept.heading.names == names;
        let same = kept.certificates.get(1) == above.certificates.first();
        if fresh && same {
            return Ok(Chain {
                key: own_key(&kept.key),
                certificates: kept.certificates,
            });
        }
    }
    let key = KeyPair::generate()?;
    let heading = Heading {
        names: names.to_vec(),
        called: names[0].clone(),
        ends_at: now + SERVER_LASTS,
    };
    let issuer = Issuer::new(authority_params(&above.heading, now), &above.key);
    let mut server = params(&heading, now);
    server.subject_alt_names = CertificateParams::new(names)?.subject_alt_names;
    server.key_usages = vec![KeyUsagePurpose::DigitalSignature];
    server.extended_key_usages = vec![ExtendedKeyUsagePurpose::ServerAuth];
    server.use_authority_key_identifier_extension = true;
    let certificate = server.signed_by(&key, &issuer)?;
    let certificates = vec![certificate.der().clone(), above.certificates[0].clone()];
    keep(&path, &heading, &key, &certificates)?;
    Ok(Chain {
        key: own_key(&key),
        certificates,
    })
}

/// A key and certificates that somebody else made.
///
/// Errors: files that cannot be read as such.
pub fn given(certificate: &Path, key: &Path) -> Result<Chain, TlsError> {
    let read = |path: &Path| {
        fs::read(path).map_err(|cause| TlsError::File {
            path: path.into(),
            cause,
        })
    };
    let all: Result<Vec<_>, _> = CertificateDer::pem_slice_iter(&read(certificate)?).collect();
    let certificates = all.ok().filter(|c| !c.is_empty());
    let der = PrivateKeyDer::from_pem_slice(&read(key)?);
    Ok(Chain {
        certificates: certificates.ok_or_else(|| TlsError::Unreadable(certificate.into()))?,
        key: der.map_err(|_| TlsError::Unreadable(key.into()))?,
    })
}
