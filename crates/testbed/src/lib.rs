//! Testbed: real servers for tests. One MariaDB shared by all test processes (started by bin/test), one
//! database per test, a private Chromium per browser test.

pub mod browser;
pub mod db;
pub mod wait;
