//! The house stands as `docs/architecture.md` says: no circles, and one name for one type.

mod circles;
mod names;
