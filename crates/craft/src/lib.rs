pub mod leaven;
pub mod note;
pub mod refusal;
pub mod rise;
pub mod units;
