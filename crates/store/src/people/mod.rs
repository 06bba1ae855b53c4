//! People: who there is, in which kitchens, where they are signed in, and what was given away by link.

pub mod pass;
pub mod person;
pub mod session;
pub mod tries;

use sha2::{Digest, Sha256};

/// A person.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct PersonId(pub u64);

/// What a secret is kept as: who reads the database cannot use it.
pub fn secret_hash(secret: &str) -> Vec<u8> {
    Sha256::digest(secret.as_bytes()).to_vec()
}
