//! docs/worked-examples.md is true: every line of arithmetic, and every request with its results.

use crate::excerpt::assert_holds;
use anyhow::{Context, Result, bail};
use web::api::{ReckonKind, Worded, reckon};

const PAGE: &str = include_str!("../../../../docs/worked-examples.md");

/// The blocks of a kind, in order.
fn blocks(kind: &str) -> Vec<&'static str> {
    PAGE.split(&format!("```{kind}\n"))
        .skip(1)
        .filter_map(|b| b.split("```").next())
        .collect()
}

/// Sums, products and brackets: what stands on the page.
struct Sum<'a>(std::iter::Peekable<std::str::Chars<'a>>);

impl Sum<'_> {
    fn of(text: &str) -> Result<f64> {
        let mut s = Sum(text.chars().peekable());
        let v = s.sum()?;
        if let Some(c) = s.next_sign() {
            bail!("{c} in {text}");
        }
        Ok(v)
    }
    fn next_sign(&mut self) -> Option<char> {
        while self.0.next_if(|c| c.is_whitespace()).is_some() {}
        self.0.peek().copied()
    }
    fn sum(&mut self) -> Result<f64> {
        let mut v = self.product()?;
        while let Some(sign @ ('+' | '-')) = self.next_sign() {
            self.0.next();
            let other = self.product()?;
            v = if sign == '+' { v + other } else { v - other };
        }
        Ok(v)
    }
    fn product(&mut self) -> Result<f64> {
        let mut v = self.value()?;
        while let Some(sign @ ('*' | '/')) = self.next_sign() {
            self.0.next();
            let other = self.value()?;
            v = if sign == '*' { v * other } else { v / other };
        }
        Ok(v)
    }
    fn value(&mut self) -> Result<f64> {
        if self.next_sign() == Some('(') {
            self.0.next();
            let v = self.sum()?;
            if self.next_sign() != Some(')') {
                bail!("a bracket is open");
            }
            self.0.next();
            return Ok(v);
        }
        let mut digits = String::new();
        while let Some(c) = self.0.next_if(|c| c.is_ascii_digit() || *c == '.') {
            digits.push(c);
        }
        digits.parse().context(digits)
    }
}

#[test]
fn every_line_of_arithmetic_is_right_to_the_digits_shown() -> Result<()> {
    let lines: Vec<&str> = blocks("arithmetic")
        .into_iter()
        .flat_map(str::lines)
        .collect();
    assert!(lines.len() >= 25);
    for line in lines {
        let (sum, shown) = line.split_once(" = ").with_context(|| line.to_string())?;
        let decimals = shown.split_once('.').map_or(0, |(_, d)| d.len() as i32);
        let (got, want) = (Sum::of(sum)?, shown.parse::<f64>()?);
        assert!(
            (got - want).abs() <= 0.5 * 10f64.powi(-decimals) + 1e-9,
            "{line}: {got}"
        );
    }
    assert!(Sum::of("1 + (2").is_err() && Sum::of("2 x 2").is_err());
    Ok(())
}

#[test]
fn every_request_gives_its_documented_result() -> Result<()> {
    let json = blocks("json");
    assert!(json.len() >= 8 && json.len().is_multiple_of(2));
    for pair in json.chunks(2) {
        let answer = reckon(ReckonKind::Formula, pair[0].as_bytes(), Worded::default())
            .map_err(|e| anyhow::anyhow!("{e:?}"))?;
        assert_holds("result", &serde_json::from_str(pair[1])?, &answer);
    }
    Ok(())
}
