//! Codes that a telephone reads, as drawings.

use crate::shared::error::AppError;
use crate::shared::tongue::say;
use qrcode::QrCode;
use qrcode::render::svg;

/// A code that a telephone reads.
///
/// Errors: an address that is too long for one.
pub fn code_of(address: &str) -> Result<String, AppError> {
    let svg = QrCode::new(address.as_bytes())
        .map_err(|e| AppError::Asked(say!("page-no-code-can-be-drawn", address = address, e = e)))?
        .render::<svg::Color>()
        .min_dimensions(120, 120)
        .quiet_zone(true)
        .build();
    // Only the drawing: a page holds no XML heading.
    Ok(svg
        .find("<svg")
        .map_or(String::new(), |i| svg[i..].to_string()))
}
