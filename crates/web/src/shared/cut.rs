//! Texts that are too long for their place.

/// A text of so many letters at most; what is cut off is marked.
pub fn shortened(text: &str, most: usize) -> String {
    if text.chars().count() <= most {
        return text.into();
    }
    let kept: String = text.chars().take(most - 1).collect();
    format!("{}…", kept.trim_end())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_long_name_is_cut_where_it_shows() {
        assert_eq!(shortened("Halt round", 19), "Halt round");
        assert_eq!(shortened("Fair, fifty and spares", 17), "Fair, fifty and…");
        assert_eq!(shortened("Crème brûlée", 12), "Crème brûlée");
    }
}
