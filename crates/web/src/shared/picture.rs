//! Pictures that come in: read with bounds, turned upright, made small and written anew, so that nothing else comes along with them (where and
//! by which camera it was taken).

use craft::photo::{LONGEST_SIDE, MOST_SENT, MOST_SENT_SIDE, PhotoRefused, SMALL_SIDE, fit};
use image::codecs::jpeg::JpegEncoder;
use image::imageops::FilterType;
use image::{DynamicImage, ImageDecoder, ImageReader, Limits};
use std::io::Cursor;
use store::photo::Picture;

/// Of JPEG: beyond this a crumb looks no better.
const QUALITY: u8 = 84;
/// Small ones are looked at in rows.
const SMALL_QUALITY: u8 = 76;
/// What a picture may take while it is opened, pixels and bytes.
const MOST_PIXELS: u64 = 20_000_000;
const MOST_ALLOCATED: u64 = 128 * 1024 * 1024;

/// The picture as it is kept.
///
/// Errors: too many bytes; nothing that can be read as a picture, or one too large to open.
pub fn kept(bytes: &[u8]) -> Result<Picture, PhotoRefused> {
    if bytes.len() > MOST_SENT {
        return Err(PhotoRefused::TooLarge);
    }
    let whole = opened(bytes)?;
    let whole = scaled(&whole, LONGEST_SIDE);
    let side = |n: u32| u16::try_from(n).map_err(|_| PhotoRefused::NoPicture);
    Ok(Picture {
        width: side(whole.width())?,
        height: side(whole.height())?,
        picture: jpeg(&whole, QUALITY)?,
        small: jpeg(&scaled(&whole, SMALL_SIDE), SMALL_QUALITY)?,
    })
}

fn opened(bytes: &[u8]) -> Result<DynamicImage, PhotoRefused> {
    let no_picture = |_| PhotoRefused::NoPicture;
    let mut reader = ImageReader::new(Cursor::new(bytes))
        .with_guessed_format()
        .map_err(|_| PhotoRefused::NoPicture)?;
    let mut limits = Limits::default();
    limits.max_image_width = Some(MOST_SENT_SIDE);
    limits.max_image_height = Some(MOST_SENT_SIDE);
    limits.max_alloc = Some(MOST_ALLOCATED);
    reader.limits(limits);
    let mut decoder = reader.into_decoder().map_err(no_picture)?;
    let (width, height) = decoder.dimensions();
    let fits = width.max(height) <= MOST_SENT_SIDE
        && u64::from(width) * u64::from(height) <= MOST_PIXELS
        && decoder.total_bytes() <= MOST_ALLOCATED;
    if !fits {
        return Err(PhotoRefused::NoPicture);
    }
    let upright = decoder.orientation().map_err(no_picture)?;
    let mut picture = DynamicImage::from_decoder(decoder).map_err(no_picture)?;
    picture.apply_orientation(upright);
    Ok(picture)
}

fn scaled(picture: &DynamicImage, longest: u32) -> DynamicImage {
    let (width, height) = fit((picture.width(), picture.height()), longest);
    if (width, height) == (picture.width(), picture.height()) {
        return picture.clone();
    }
    picture.resize_exact(width, height, FilterType::Triangle)
}

fn jpeg(picture: &DynamicImage, quality: u8) -> Result<Vec<u8>, PhotoRefused> {
    let mut out = Vec::new();
    JpegEncoder::new_with_quality(&mut out, quality)
        .encode_image(&picture.to_rgb8())
        .map_err(|_| PhotoRefused::NoPicture)?;
    Ok(out)
}

#[cfg(test)]
mod tests {
    use super::*;
    use image::{GrayImage, ImageFormat, Rgb, RgbImage};

    fn png(width: u32, height: u32) -> Vec<u8> {
        let crumb = RgbImage::from_fn(width, height, |x, y| {
            Rgb([(x / 40) as u8, (y / 40) as u8, 90])
        });
        let mut out = Cursor::new(Vec::new());
        crumb.write_to(&mut out, ImageFormat::Png).unwrap();
        out.into_inner()
    }

    #[test]
    fn a_large_picture_is_kept_small_and_a_small_one_as_large_as_it_is() {
        let p = kept(&png(3200, 1600)).unwrap();
        assert_eq!((p.width, p.height), (1280, 640));
        assert!(p.picture.starts_with(&[0xff, 0xd8, 0xff]));
        let small = image::load_from_memory(&p.small).unwrap();
        assert_eq!((small.width(), small.height()), (320, 160));
        assert!(p.small.len() < p.picture.len());
        let p = kept(&png(90, 120)).unwrap();
        assert_eq!((p.width, p.height), (90, 120));
    }

    #[test]
    fn what_is_no_picture_or_too_much_is_refused() {
        assert_eq!(kept(b"not a picture"), Err(PhotoRefused::NoPicture));
        assert_eq!(kept(&[]), Err(PhotoRefused::NoPicture));
        assert_eq!(kept(&vec![0; MOST_SENT + 1]), Err(PhotoRefused::TooLarge));
        let whole = png(300, 200);
        assert_eq!(
            kept(&whole[..whole.len() / 2]),
            Err(PhotoRefused::NoPicture)
        );
        // Some kB that would open to more than this program opens.
        let mut huge = Cursor::new(Vec::new());
        let plain = GrayImage::new(5_000, 5_000);
        plain.write_to(&mut huge, ImageFormat::Png).unwrap();
        let huge = huge.into_inner();
        assert!(huge.len() < MOST_SENT, "{}", huge.len());
        assert_eq!(kept(&huge), Err(PhotoRefused::NoPicture));
    }
}
