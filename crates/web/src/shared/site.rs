//! Where this server is reached: the names that it answers to, and the addresses that it gives away.

use crate::shared::tongue::{phrase, say};
use crate::tls::{Certificates, Trust};
use axum::http::uri::Authority;
use std::net::{IpAddr, SocketAddr};
use std::sync::Arc;

/// What the program was told of its place in the network.
#[derive(Debug, Clone, Default)]
pub struct Site {
    /// What people type, "https://pizza.example"; none where only this machine reaches it.
    public: Option<Public>,
    /// Where it listens, once it does.
    listens: Option<SocketAddr>,
    /// Proxies whose word about who asks is believed.
    proxies: Vec<IpAddr>,
    /// What it secures its connections with, where it does so itself.
    certificates: Option<Arc<Certificates>>,
}

#[derive(Debug, Clone, PartialEq, Eq)]
struct Public {
    scheme: String,
    authority: Authority,
}

impl Site {
    /// Errors: a sentence for an address that is none.
    pub fn new(public_url: Option<&str>, proxies: Vec<IpAddr>) -> Result<Site, String> {
        let public = public_url.map(public).transpose()?;
        Ok(Site {
            public,
            listens: None,
            proxies,
            certificates: None,
        })
    }
    pub fn listening(mut self, at: Option<SocketAddr>) -> Site {
        self.listens = at;
        self
    }

    /// The same, speaking https itself.
    pub fn secured_by(mut self, certificates: Option<Arc<Certificates>>) -> Site {
        self.certificates = certificates;
        self
    }
    /// What it secures its connections with.
    pub fn certificates(&self) -> Option<Arc<Certificates>> {
        self.certificates.clone()
    }
    /// What a tablet is to trust, where nobody else vouches for this server.
    pub fn trust(&self) -> Option<Trust> {
        self.certificates.as_ref()?.trust()
    }
    /// The address of what is answered in the clear, too.
    pub fn in_the_clear(&self, path: &str) -> String {
        self.address(path).replacen("https://", "http://", 1)
    }
    /// The names that a certificate of its own is for: the public one first, and this machine's.
    pub fn names(&self) -> Vec<String> {
        let public = self.public.as_ref().map(|p| bare(p.authority.host()));
        let here = ["localhost", "127.0.0.1", "::1"];
        let others = here.into_iter().filter(|n| public != Some(n));
        public.into_iter().chain(others).map(String::from).collect()
    }

    /// Whether requests to this host are meant for this server: a loopback name, or the public one. A page of another
    /// site whose name was made to lead here is not.
    pub fn answers_to(&self, host: &str) -> bool {
        let Ok(asked) = host.parse::<Authority>() else {
            return false;
        };
        let name = asked.host();
        is_loopback(bare(name))
            || self
                .public
                .as_ref()
                .is_some_and(|p| p.authority.host().eq_ignore_ascii_case(name))
    }

    /// Whether an origin is this server's own: of the host that was asked, or the public one.
    pub fn is_own_origin(&self, origin: &str, host: &str) -> bool {
        let Some((scheme, authority)) = origin.split_once("://") else {
            return false;
        };
        let public = self.public.as_ref().is_some_and(|p| {
            p.scheme == scheme && p.authority.as_str().eq_ignore_ascii_case(authority)
        });
        let asked = matches!(scheme, "http" | "https") && authority.eq_ignore_ascii_case(host);
        public || asked
    }

    /// Whether browsers reach it by https.
    pub fn is_secure(&self) -> bool {
        let public = self.public.as_ref().is_some_and(|p| p.scheme == "https");
        public || self.certificates.is_some()
    }

    /// A whole address of a path of this server.
    pub fn address(&self, path: &str) -> String {
        match (&self.public, self.listens) {
            (Some(p), _) => format!("{}://{}{path}", p.scheme, p.authority),
            (None, Some(at)) if self.certificates.is_some() => format!("https://{at}{path}"),
            (None, Some(at)) => format!("http://{at}{path}"),
            (None, None) => format!("http://localhost{path}"),
        }
    }

    /// Where no other machine reaches this one: that, with what opens it.
    pub fn only_here(&self) -> Option<String> {
        if self.public.is_some() {
            return None;
        }
        Some(phrase("page-this-server-listens-to-this").into())
    }

    pub fn believes(&self, proxy: IpAddr) -> bool {
        self.proxies.contains(&proxy)
    }
}

/// A name without the brackets of an address.
fn bare(name: &str) -> &str {
    name.trim_start_matches('[').trim_end_matches(']')
}

fn is_loopback(name: &str) -> bool {
    name.eq_ignore_ascii_case("localhost")
        || name.parse::<IpAddr>().is_ok_and(|ip| ip.is_loopback())
}

fn public(url: &str) -> Result<Public, String> {
    let wrong = || say!("page-is-no-address-write-it", url = url);
    let (scheme, rest) = url
        .trim_end_matches('/')
        .split_once("://")
        .ok_or_else(wrong)?;
    let authority: Authority = rest.parse().map_err(|_| wrong())?;
    let plain = !authority.host().is_empty() && !authority.as_str().contains('@');
    match (scheme, plain) {
        ("http" | "https", true) => Ok(Public {
            scheme: scheme.into(),
            authority,
        }),
        _ => Err(wrong()),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn loopback_names_and_the_public_one_are_answered_and_no_other() {
        let site = Site::new(Some("https://pizza.example/"), vec![]).unwrap();
        for own in [
            "localhost",
            "LOCALHOST:8080",
            "127.0.0.1:8080",
            "127.9.0.1",
            "[::1]:8080",
            "pizza.example",
            "Pizza.Example:443",
        ] {
            assert!(site.answers_to(own), "{own}");
        }
        for foreign in [
            "elsewhere.example",
            "localhost.elsewhere.example",
            "127.0.0.1.elsewhere.example",
            "192.168.1.20:8080",
            "",
            "pizza.example.elsewhere.example",
            "a b",
        ] {
            assert!(!site.answers_to(foreign), "{foreign}");
        }
        assert!(!Site::default().answers_to("pizza.example"));
    }

    #[test]
    fn an_origin_is_own_when_it_is_the_host_that_was_asked_or_the_public_one() {
        let site = Site::new(Some("https://pizza.example"), vec![]).unwrap();
        assert!(site.is_own_origin("http://127.0.0.1:8080", "127.0.0.1:8080"));
        assert!(site.is_own_origin("https://pizza.example", "127.0.0.1:8080"));
        assert!(!site.is_own_origin("http://pizza.example", "127.0.0.1:8080"));
        assert!(!site.is_own_origin("null", "127.0.0.1:8080"));
        assert!(!site.is_own_origin("http://127.0.0.1:9090", "127.0.0.1:8080"));
    }

    #[test]
    fn addresses_that_are_given_away_are_the_public_ones() {
        let here = Site::default().listening("127.0.0.1:8081".parse().ok());
        assert_eq!(
            here.address("/batches/HR-01"),
            "http://127.0.0.1:8081/batches/HR-01"
        );
        assert!(here.only_here().is_some());
        let open = Site::new(Some("http://192.168.1.20:8080"), vec![]).unwrap();
        assert_eq!(open.address("/"), "http://192.168.1.20:8080/");
        assert!(open.only_here().is_none());
        assert_eq!(
            open.names(),
            ["192.168.1.20", "localhost", "127.0.0.1", "::1"]
        );
        assert_eq!(here.names()[0], "localhost");
        for bad in [
            "pizza.example",
            "ftp://pizza.example",
            "http://a@b",
            "https://",
        ] {
            assert!(Site::new(Some(bad), vec![]).is_err(), "{bad}");
        }
    }
}
