//! Waiting for a condition with a deadline.

use anyhow::{Result, bail};
use std::time::{Duration, Instant};

/// Asks again until it is so, 20 s at most; says what never came.
pub async fn until<F>(what: &str, mut is_so: impl FnMut() -> F) -> Result<()>
where
    F: Future<Output = bool>,
{
    let deadline = Instant::now() + Duration::from_secs(20);
    while !is_so().await {
        if Instant::now() > deadline {
            bail!("waited in vain for {what}");
        }
        tokio::time::sleep(Duration::from_millis(25)).await;
    }
    Ok(())
}
