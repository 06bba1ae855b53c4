//! The ledger for a spreadsheet: a line for each bake, under the columns that late entries are read from.

use super::find::LedgerQuery;
use crate::App;
use crate::batch::load;
use crate::batch::record::BatchRecord;
use crate::shared::error::AppError;
use crate::shared::kitchen::RequestKitchen;
use axum::body::Body;
use axum::extract::{Query, State};
use axum::http::header;
use axum::response::{IntoResponse, Response};
use craft::exchange::bakes::bakes_as_csv;
use craft::formula::Dose;
use craft::keyed::Keyed;
use craft::learn::notice::{TurnedOut, how_it_turned_out};
use craft::number::plain;
use craft::reading::Subject;
use craft::units::TemperatureUnit;
use futures_util::stream;

/// So many are read at once.
const AT_ONCE: u32 = 100;

/// Writes the bakes that are asked for, page after page, so that ten thousand need no more memory than a hundred.
pub async fn csv(
    State(app): State<App>,
    here: RequestKitchen,
    Query(asked): Query<LedgerQuery>,
) -> Result<Response, AppError> {
    let find = asked.find(&here);
    let lines = stream::unfold(Some(0u32), move |skip| {
        let (app, here, find) = (app.clone(), here.clone(), find.clone());
        async move {
            let skip = skip?;
            let some = match load::found(&app, &here, &find, (skip, AT_ONCE)).await {
                Ok(some) => some,
                // The answer has begun: it is cut off, so that nobody takes a part for the whole.
                Err(e) => return Some((Err(std::io::Error::other(e.to_string())), None)),
            };
            let lines: Vec<Vec<String>> = some.told.iter().map(|t| line(t, &here)).collect();
            let next = skip + AT_ONCE;
            let more = (u64::from(next) < some.in_all).then_some(next);
            Some((Ok(bakes_as_csv(&lines, skip == 0)), more))
        }
    });
    let headers = [
        (header::CONTENT_TYPE, "text/csv; charset=utf-8"),
        (
            header::CONTENT_DISPOSITION,
            "attachment; filename=\"ledger.csv\"",
        ),
    ];
    Ok((headers, Body::from_stream(lines)).into_response())
}

fn side(turned: &[TurnedOut], pale: TurnedOut, dark: TurnedOut) -> &'static str {
    match turned {
        t if t.contains(&TurnedOut::Unjudged) => "",
        t if t.contains(&pale) => "pale",
        t if t.contains(&dark) => "dark",
        _ => "right",
    }
}

fn line(t: &BatchRecord, here: &RequestKitchen) -> Vec<String> {
    let (r, sheet) = (&t.batch.sheet.request, &t.batch.sheet.result);
    let f = &r.formula;
    let served = here.local(r.serve_at);
    let number = |v: f64, digits: i32| plain((v * 10f64.powi(digits)).round() / 10f64.powi(digits));
    let degrees = |c: Option<f64>| {
        c.map_or(String::new(), |c| match here.measures.temperature {
            TemperatureUnit::Celsius => number(c, 1),
            TemperatureUnit::Fahrenheit => number(c * 1.8 + 32.0, 1),
        })
    };
    let run = t.run.summary();
    let turned = how_it_turned_out(&run);
    let went = t.went();
    let flours: Vec<String> = f
        .flours
        .iter()
        .map(|p| format!("{} {}", plain(p.share_percent), p.name))
        .collect();
    let noticed: Vec<&str> = t.noticed().map(|(n, _)| n.key()).collect();
    let said: Vec<&str> = t.remarks().map(|(_, r)| r).collect();
    let count = |n: u32| {
        if run.out > 0 {
            n.to_string()
        } else {
            String::new()
        }
    };
    vec![
        served.date().to_string(),
        served.strftime("%H:%M").to_string(),
        t.batch.name.clone(),
        sheet.formula.pieces.to_string(),
        match f.yeast.dose {
            Dose::None => String::new(),
            _ => plain(
                craft::number::two_digits(sheet.yeast.percent)
                    .parse()
                    .unwrap_or(0.0),
            ),
        },
        craft::trial::Varied::ColdHours
            .of(f)
            .map_or(String::new(), plain),
        degrees(t.off_the_mixer(here.now)),
        degrees(t.reading(Subject::Fridge).map(|(_, c)| c)),
        t.stood().map_or(String::new(), |(_, is)| is.key().into()),
        run.mean_s.map_or(String::new(), |s| number(s, 0)),
        side(&turned, TurnedOut::BasePale, TurnedOut::BaseDark).into(),
        side(&turned, TurnedOut::TopPale, TurnedOut::TopDark).into(),
        said.join(" / "),
        t.batch.code.clone(),
        t.batch.name.clone(),
        f.style.name.clone(),
        flours.join(" + "),
        plain(f.hydration_percent),
        plain(f.salt_percent),
        plain(f.bulk_h),
        plain(f.temper_h),
        number(went.map_or(sheet.rise_at_serve, |w| w.rise_at_serve), 0),
        number(
            went.map_or(sheet.reserve_at_serve, |w| w.reserve_at_serve),
            0,
        ),
        count(run.out),
        count(run.judged),
        count(run.right),
        noticed.join(" "),
    ]
}
