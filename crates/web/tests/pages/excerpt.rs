//! Documented results, held against what really comes out.

use serde_json::Value;

/// Every value of the excerpt stands in the answer, numbers to the digits that are shown.
pub fn assert_holds(path: &str, excerpt: &Value, answer: &Value) {
    match (excerpt, answer) {
        (Value::Object(e), Value::Object(a)) => {
            for (key, value) in e {
                let found = a
                    .get(key)
                    .unwrap_or_else(|| panic!("{path}.{key} is not in the answer"));
                assert_holds(&format!("{path}.{key}"), value, found);
            }
        }
        (Value::Array(e), Value::Array(a)) => {
            assert!(a.len() >= e.len(), "{path}: {} of {}", a.len(), e.len());
            for (i, value) in e.iter().enumerate() {
                assert_holds(&format!("{path}[{i}]"), value, &a[i]);
            }
        }
        (Value::Number(e), Value::Number(a)) => {
            let shown = e.to_string();
            let decimals = shown.split_once('.').map_or(0, |(_, d)| d.len() as i32);
            let half = 0.5 * 10f64.powi(-decimals) + 1e-9;
            let (e, a) = (e.as_f64().unwrap(), a.as_f64().unwrap());
            assert!((e - a).abs() <= half, "{path}: {a}, documented {e}");
        }
        (e, a) => assert_eq!(e, a, "{path}"),
    }
}
