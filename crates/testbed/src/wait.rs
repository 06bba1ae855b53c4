//! Waiting for a condition with a deadline.

use anyhow::{Result, bail};
use std::time::{Duration, Instant};

/// Asks again until it is so, 20 s at most; says what never came.
pub async fn until<F>(what: &str, is_so: impl FnMut() -> F) -> Result<()>
where
    F: Future<Output = bool>,
{
    until_within(Duration::from_secs(20), what, is_so).await
}

/// As [`until`], for what takes its time by nature.
pub async fn until_within<F>(
    longest: Duration,
    what: &str,
    mut is_so: impl FnMut() -> F,
) -> Result<()>
where
    F: Future<Output = bool>,
{
    let deadline = Instant::now() + longest;
    while !is_so().await {
        if Instant::now() > deadline {
            bail!("waited in vain for {what}");
        }
        tokio::time::sleep(Duration::from_millis(25)).await;
    }
    Ok(())
}
