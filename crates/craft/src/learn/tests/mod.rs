//! The reference cases of learning and diagnosis, and what must hold of any log.

mod reference;
mod twin;
