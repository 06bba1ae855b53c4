use super::authority::vouched;
use super::*;
use jiff::SignedDuration;
use rustls::pki_types::ServerName;
use rustls::{ClientConfig, RootCertStore};
use std::fs;
use std::os::unix::fs::PermissionsExt;
use tokio::io::{AsyncReadExt, AsyncWriteExt};
use tokio::net::{TcpListener, TcpStream};

/// A folder of a test's own, gone with it.
struct Folder(PathBuf);

impl Folder {
    fn new(name: &str) -> Folder {
        let dir = std::env::temp_dir().join(format!("slow-rise-tls-{name}-{}", std::process::id()));
        let _ = fs::remove_dir_all(&dir);
        Folder(dir)
    }
}

impl Drop for Folder {
    fn drop(&mut self) {
        let _ = fs::remove_dir_all(&self.0);
    }
}

fn names(first: &str) -> Vec<String> {
    [first, "localhost", "127.0.0.1", "::1"]
        .map(String::from)
        .to_vec()
}

fn own(folder: &Folder, first: &str, now: Timestamp) -> Arc<Certificates> {
    let (dir, names) = (folder.0.clone(), names(first));
    Certificates::of(TlsSource::Own { dir, names }, now).unwrap()
}

/// Whether a client that trusts an authority takes the server for this name.
async fn takes(server: &Arc<Certificates>, trusts: &Trust, name: &str) -> Result<(), String> {
    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let at = listener.local_addr().unwrap();
    let acceptor = server.acceptor().unwrap();
    let serving = tokio::spawn(async move {
        let (stream, _) = listener.accept().await.unwrap();
        let short = Duration::from_secs(5);
        let mut wire = answered(stream, Some(&acceptor), (short, short))
            .await
            .ok()?;
        assert!(wire.is_secured());
        wire.write_all(b"hello").await.ok()?;
        wire.shutdown().await.ok()
    });
    let mut roots = RootCertStore::empty();
    roots.add(trusts.der.clone().into()).unwrap();
    let config = ClientConfig::builder_with_provider(default_provider().into())
        .with_safe_default_protocol_versions()
        .unwrap()
        .with_root_certificates(roots)
        .with_no_client_auth();
    let connector = tokio_rustls::TlsConnector::from(Arc::new(config));
    let stream = TcpStream::connect(at).await.unwrap();
    let name = ServerName::try_from(name.to_string()).unwrap();
    let mut secured = connector
        .connect(name, stream)
        .await
        .map_err(|e| e.to_string())?;
    let mut said = String::new();
    secured
        .read_to_string(&mut said)
        .await
        .map_err(|e| e.to_string())?;
    assert_eq!(said, "hello");
    serving.await.unwrap();
    Ok(())
}

#[tokio::test]
async fn whoever_trusts_the_authority_takes_the_server_for_its_names_alone() {
    let folder = Folder::new("names");
    let now = Timestamp::now();
    let server = own(&folder, "pizza.example", now);
    let trust = server.trust().unwrap();
    for name in ["pizza.example", "localhost", "127.0.0.1", "::1"] {
        takes(&server, &trust, name).await.unwrap();
    }
    assert!(takes(&server, &trust, "elsewhere.example").await.is_err());
    assert!(takes(&server, &trust, "192.168.1.20").await.is_err());
    // Another authority's word counts for nothing.
    let elsewhere = Folder::new("elsewhere");
    let other = own(&elsewhere, "pizza.example", now).trust().unwrap();
    assert!(takes(&server, &other, "pizza.example").await.is_err());
    assert_ne!(trust.fingerprint(), other.fingerprint());
    assert_eq!(trust.fingerprint().len(), 32 * 3 - 1);
}

#[tokio::test]
async fn an_authority_cannot_vouch_for_what_it_was_not_made_for() {
    let folder = Folder::new("bound");
    let now = Timestamp::now();
    let trust = own(&folder, "pizza.example", now).trust().unwrap();
    // Whoever stole its key makes a certificate for another name, under a heading that hides it.
    let path = folder.0.join("authority.pem");
    let stolen = fs::read_to_string(&path).unwrap();
    let forged = stolen.replace("names: pizza.example", "names: bank.example");
    fs::write(&path, forged).unwrap();
    let server = own(&folder, "bank.example", now);
    assert_eq!(server.trust().unwrap().der, trust.der, "the same authority");
    let said = takes(&server, &trust, "bank.example").await.unwrap_err();
    assert!(
        said.to_lowercase().contains("constraint") || said.contains("Constraint"),
        "{said}"
    );
}

#[tokio::test]
async fn certificates_renew_themselves_and_the_authority_stays() {
    let folder = Folder::new("renewal");
    let now = Timestamp::now();
    let days = |n: i64| now + SignedDuration::from_hours(24 * n);
    let server = own(&folder, "pizza.example", now);
    let (first, trust) = (server.shown(), server.trust().unwrap());
    assert!(!server.look_again(days(59)).unwrap());
    assert_eq!(server.shown(), first);
    assert!(
        server.look_again(days(61)).unwrap(),
        "thirty days before its end"
    );
    assert_ne!(server.shown()[0], first[0]);
    assert_eq!(
        server.trust().unwrap(),
        trust,
        "tablets need not trust anew"
    );
    // A program that starts again shows the same, and files are nobody else's to read.
    let again = own(&folder, "pizza.example", days(62));
    assert_eq!(again.shown(), server.shown());
    for file in ["authority.pem", "server.pem"] {
        let mode = fs::metadata(folder.0.join(file))
            .unwrap()
            .permissions()
            .mode();
        assert_eq!(mode & 0o777, 0o600, "{file}");
    }
    // Another name needs another authority; so does one that ends.
    let renamed = own(&folder, "pizza.test", days(62));
    assert_ne!(renamed.trust().unwrap().der, trust.der);
    let old = renamed.trust().unwrap();
    assert!(renamed.look_again(days(62 + 3650)).unwrap());
    assert_ne!(renamed.trust().unwrap().der, old.der);
}

#[test]
fn what_is_no_certificate_is_said_and_nothing_is_replaced() {
    let folder = Folder::new("spoilt");
    let now = Timestamp::now();
    let server = own(&folder, "pizza.example", now);
    let path = folder.0.join("authority.pem");
    fs::write(&path, "spoilt").unwrap();
    let said = server.look_again(now).unwrap_err().to_string();
    assert!(said.contains("authority.pem"), "{said}");
    assert_eq!(fs::read_to_string(&path).unwrap(), "spoilt");
    assert_eq!(
        server.shown().len(),
        2,
        "the former one goes on being shown"
    );
    let missing = TlsSource::Given {
        certificate: folder.0.join("none.pem"),
        key: folder.0.join("none.key"),
    };
    let said = Certificates::of(missing, now).unwrap_err().to_string();
    assert!(said.contains("none.pem"), "{said}");
}

#[test]
fn a_given_certificate_is_read_and_read_again() {
    let folder = Folder::new("given");
    let now = Timestamp::now();
    let made = |name: &str| {
        vouched(&folder.0.join(name), &names("pizza.example"), now).unwrap();
        folder.0.join(name).join("server.pem")
    };
    let (certificate, key) = (folder.0.join("given.pem"), folder.0.join("given.key"));
    let put = |from: &PathBuf| {
        fs::copy(from, &certificate).unwrap();
        fs::copy(from, &key).unwrap();
    };
    let one = made("one");
    put(&one);
    let source = TlsSource::Given {
        certificate: certificate.clone(),
        key: key.clone(),
    };
    let server = Certificates::of(source, now).unwrap();
    assert_eq!(server.trust(), None);
    assert!(!server.look_again(now).unwrap());
    put(&made("two"));
    assert!(server.look_again(now).unwrap());
    // A key of another certificate is refused.
    fs::copy(one, &key).unwrap();
    assert!(server.look_again(now).is_err());
}
