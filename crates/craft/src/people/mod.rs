//! People: what each may do in a kitchen, what a name and a password must be, how long what was given away lasts.

mod evening;
mod lasting;
mod name;
mod password;
mod role;

pub use evening::{evening, evening_of};
pub use lasting::{Lasting, Tries, wait_s};
pub use name::{check_name, initials, name_key};
pub use password::check_password;
pub use role::{Right, Role};
