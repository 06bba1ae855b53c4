//! Secrets that are given away, and the hashes of passwords.

use crate::shared::error::AppError;
use argon2::password_hash::phc::PasswordHash;
use argon2::{Argon2, PasswordHasher, PasswordVerifier};
use std::sync::LazyLock;
use tokio::sync::Semaphore;
use uuid::Uuid;

/// A secret for an address, which nobody guesses: 244 random bits.
pub fn fresh() -> String {
    format!("{}{}", Uuid::new_v4().simple(), Uuid::new_v4().simple())
}

/// Letters and figures that are not taken for each other.
const LEGIBLE: &[u8; 28] = b"ABCDEFGHJKLMNPRSTUVWXYZ23467";

/// A code to be read off one screen and typed at another: eight of them.
pub fn legible() -> String {
    // Bytes 6 and 8 of such a number are partly fixed; the first four are not.
    let random = [Uuid::new_v4(), Uuid::new_v4()].map(|u| u.into_bytes());
    let bytes = random.iter().flat_map(|b| &b[..4]);
    bytes
        .map(|b| char::from(LEGIBLE[usize::from(*b) % LEGIBLE.len()]))
        .collect()
}

/// A typed code as it was shown.
pub fn as_shown(typed: &str) -> String {
    typed
        .chars()
        .filter(char::is_ascii_alphanumeric)
        .map(|c| c.to_ascii_uppercase())
        .collect()
}

/// A hash takes 19 MB and a core for a while: so many at a time, however many ask.
static AT_ONCE: Semaphore = Semaphore::const_new(2);
/// What nobody's password is kept as.
static NOBODYS: LazyLock<String> = LazyLock::new(|| hash(&fresh()).unwrap_or_default());

fn hash(password: &str) -> Option<String> {
    let hash = Argon2::default().hash_password(password.as_bytes());
    hash.ok().map(|h| h.to_string())
}

async fn beside<T: Send + 'static>(
    work: impl FnOnce() -> T + Send + 'static,
) -> Result<T, AppError> {
    let _turn = AT_ONCE.acquire().await.map_err(|_| AppError::Busy)?;
    tokio::task::spawn_blocking(work)
        .await
        .map_err(|_| AppError::Busy)
}

/// What a password is kept as. Slow on purpose, and so done beside the pages.
pub async fn hashed(password: String) -> Result<String, AppError> {
    beside(move || hash(&password)).await?.ok_or(AppError::Busy)
}

/// Whether a password is the one of this hash. Without a hash the same time is spent, so that nobody learns which names
/// there are.
pub async fn is_right(password: String, kept: Option<String>) -> Result<bool, AppError> {
    beside(move || {
        let known = kept.is_some();
        let kept = kept.unwrap_or_else(|| NOBODYS.clone());
        let right = PasswordHash::new(&kept).is_ok_and(|h| {
            Argon2::default()
                .verify_password(password.as_bytes(), &h)
                .is_ok()
        });
        known && right
    })
    .await
}

#[cfg(test)]
mod tests {
    use super::*;

    #[tokio::test]
    async fn a_password_is_found_again_in_its_hash_alone() {
        let kept = hashed("seven slow loaves".into()).await.unwrap();
        assert!(
            kept.starts_with("$argon2id$v=19$m=19456,t=2,p=1$"),
            "{kept}"
        );
        let right = async |p: &str, k| is_right(p.into(), k).await.unwrap();
        assert!(right("seven slow loaves", Some(kept.clone())).await);
        assert!(!right("seven slow loafs", Some(kept)).await);
        assert!(!right("seven slow loaves", None).await);
        assert!(!right("x", Some("no hash".into())).await);
    }

    #[test]
    fn codes_are_legible_however_they_are_typed() {
        let code = legible();
        assert_eq!(code.len(), 8);
        assert_eq!(
            as_shown(&format!(" {}-{} ", &code[..4].to_lowercase(), &code[4..])),
            code
        );
        assert_ne!(fresh(), fresh());
        assert_eq!(fresh().len(), 64);
    }
}
