//! The ledger's own rows: words by which a bake is found, trials, what was practised.

use super::*;
use craft::fact::Percent;
use craft::keyed::Keyed;
use craft::learn::notice::TurnedOut;
use craft::trial::{Criterion, Tasted, TrialArm, TrialDesign};
use jiff::ToSpan;
use store::found::{self, FindBakes, WordKind};
use store::practised::{self, PractisedLevel};
use store::trial;

/// A batch that is closed on a day of November, with what was entered.
async fn closed(
    c: &mut store::Connection,
    id: KitchenId,
    name: &str,
    day: i64,
    seen: Vec<entry::SaidEntry>,
) -> Result<String> {
    let code = entered::keep(c, id, &sheet(name), at(NOW)).await?;
    let batch = batch::id_of(c, id, &code).await?.unwrap();
    let on = at("2026-11-01T20:00:00Z") + (24 * day).hours();
    let close = Seen::Closed { went: None }.into();
    for said in seen.into_iter().chain([close]) {
        let new = entry::NewEntry::own(on, said);
        let done = entry::write(c, id, batch, &new, on, entry::By::Maker, entry::ANY).await?;
        assert_eq!(done, EntryOutcome::New);
    }
    Ok(code)
}

async fn found(c: &mut store::Connection, id: KitchenId, find: FindBakes) -> Result<Vec<String>> {
    let list = found::bakes(c, id, &find, (0, 10), &BatchCache::default()).await?;
    assert_eq!(list.in_all as usize, list.listed.len());
    Ok(list.read().into_iter().map(|b| b.code).collect())
}

fn judged(base: craft::fire::Shade) -> Vec<entry::SaidEntry> {
    let top = craft::fire::Shade::Right;
    [
        TapKind::In,
        TapKind::Out,
        TapKind::Verdict(Verdict { base, top }),
    ]
    .map(|kind| entry::SaidEntry::Tapped { pizza: 1, kind })
    .into()
}

fn remark(text: &str) -> Vec<entry::SaidEntry> {
    let remark = text.to_string();
    vec![Seen::Remark { remark }.into()]
}

#[tokio::test]
async fn a_bake_is_found_by_what_it_was_and_what_was_said_of_it() -> Result<()> {
    let (db, pool, id) = open().await?;
    let neighbour = add_kitchen(&pool, "Next door").await?;
    let mut c = pool.acquire().await?;
    let pale = judged(craft::fire::Shade::Pale);
    closed(&mut c, id, "Halt round", 1, pale).await?;
    closed(
        &mut c,
        id,
        "Platform tray",
        2,
        remark("stuck: 100 % oil_less"),
    )
    .await?;
    closed(&mut c, id, "Halt round", 3, vec![]).await?;
    closed(&mut c, neighbour, "Halt round", 1, remark("stuck")).await?;
    entered::keep(&mut c, id, &sheet("Halt round"), at(NOW)).await?;
    let none = FindBakes::default;
    let style = SHEET.0.formula.style.name.clone();
    let text = |t: &str| FindBakes {
        text: t.into(),
        ..none()
    };
    for (find, codes) in [
        (none(), vec!["HR-02", "PT-01", "HR-01"]),
        (text("halt"), vec!["HR-02", "HR-01"]),
        (text("PT-01"), vec!["PT-01"]),
        (text("STUCK"), vec!["PT-01"]),
        // Signs that a search knows are letters here.
        (text("100 %"), vec!["PT-01"]),
        (text("oil_"), vec!["PT-01"]),
        (text("oil%less"), vec![]),
        (text("' OR 1=1 --"), vec![]),
        (
            FindBakes {
                turned: TurnedOut::BasePale.key().into(),
                ..none()
            },
            vec!["HR-01"],
        ),
        (
            FindBakes {
                style: style.to_uppercase(),
                formula: "platform tray".into(),
                ..none()
            },
            vec!["PT-01"],
        ),
        (
            FindBakes {
                from: Some(at("2026-11-03T00:00:00Z")),
                until: Some(at("2026-11-04T00:00:00Z")),
                ..none()
            },
            vec!["PT-01"],
        ),
    ] {
        assert_eq!(found(&mut c, id, find.clone()).await?, codes, "{find:?}");
    }
    assert_eq!(
        found::choices(&mut c, id, WordKind::Formula).await?,
        ["Halt round", "Platform tray"]
    );
    assert_eq!(found::choices(&mut c, id, WordKind::Style).await?, [style]);
    // Beyond the last page: how many there are is said all the same.
    let beyond = found::bakes(&mut c, id, &none(), (50, 10), &BatchCache::default()).await?;
    assert_eq!((beyond.listed.len(), beyond.in_all), (0, 3));
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn words_follow_what_is_entered_after_closing() -> Result<()> {
    let (db, pool, id) = open().await?;
    let mut c = pool.acquire().await?;
    let code = closed(
        &mut c,
        id,
        "Halt round",
        1,
        judged(craft::fire::Shade::Pale),
    )
    .await?;
    let batch = batch::id_of(&mut c, id, &code).await?.unwrap();
    let pale = FindBakes {
        turned: TurnedOut::BasePale.key().into(),
        ..FindBakes::default()
    };
    assert_eq!(
        found(&mut c, id, pale.clone()).await?,
        std::slice::from_ref(&code)
    );
    let write = async |c: &mut store::Connection, said: entry::SaidEntry| {
        let new = entry::NewEntry::own(at(NOW), said);
        entry::write(c, id, batch, &new, at(NOW), entry::By::Maker, entry::ANY).await
    };
    let right = entry::SaidEntry::Tapped {
        pizza: 1,
        kind: TapKind::Verdict(Verdict::RIGHT),
    };
    write(&mut c, right).await?;
    assert!(found(&mut c, id, pale).await?.is_empty());
    // A remark that is taken back is found no more.
    let text = FindBakes {
        text: "corner".into(),
        ..FindBakes::default()
    };
    let said = entry::NewEntry::own(at(NOW), remark("stuck in a corner").remove(0));
    entry::write(
        &mut c,
        id,
        batch,
        &said,
        at(NOW),
        entry::By::Maker,
        entry::ANY,
    )
    .await?;
    assert_eq!(found(&mut c, id, text.clone()).await?, [code]);
    write(&mut c, Seen::TakenBack { entry: said.key }.into()).await?;
    assert!(found(&mut c, id, text).await?.is_empty());
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn a_trial_and_its_tastings_come_back_and_stay_in_their_kitchen() -> Result<()> {
    let (db, pool, id) = open().await?;
    let neighbour = add_kitchen(&pool, "Next door").await?;
    let mut c = pool.acquire().await?;
    let mut arms = vec![];
    for (i, water) in [60.0, 65.0].into_iter().enumerate() {
        let batch = closed(&mut c, id, "Halt round", i as i64, vec![]).await?;
        let is = fact!("just", value = Percent(water));
        arms.push(TrialArm { batch, is });
    }
    let design = TrialDesign { arms, tasters: 8 };
    let code = trial::keep(&mut c, id, "Water <b>", &design, at(NOW)).await?;
    assert_eq!(code, "T-01");
    assert_eq!(
        trial::keep(&mut c, id, "Again", &design, at(NOW)).await?,
        "T-02"
    );
    let kept = trial::by_code(&mut c, id, "T-01").await?.unwrap();
    assert_eq!((kept.name.as_str(), &kept.trial), ("Water <b>", &design));
    assert_eq!(trial::by_code(&mut c, neighbour, "T-01").await?, None);
    let (listed, in_all) = trial::list(&mut c, id, (0, 1)).await?;
    assert_eq!((listed[0].code.as_str(), in_all), ("T-02", 2));
    assert_eq!(trial::list(&mut c, neighbour, (0, 9)).await?.1, 0);

    let tasted = Tasted::Scored {
        taster: 3,
        arm: 1,
        of: Criterion::Chew,
        score: Some(4),
    };
    let batch = batch::id_of(&mut c, id, &design.arms[1].batch)
        .await?
        .unwrap();
    let said = Seen::Tasted {
        trial: kept.key,
        tasted,
    };
    let new = entry::NewEntry::own(at(NOW), said.clone().into());
    entry::write(
        &mut c,
        id,
        batch,
        &new,
        at(NOW),
        entry::By::Maker,
        entry::ANY,
    )
    .await?;
    let back = entry::of_batch(&mut c, id, batch).await?;
    assert!(back.seen.iter().any(|o| o.seen == said));
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn a_case_counts_once_for_its_hand_and_its_level() -> Result<()> {
    let (db, pool, id) = open().await?;
    let mut c = pool.acquire().await?;
    let nothing = [PractisedLevel::default(); 3];
    assert_eq!(practised::of(&mut c, id, "Nora").await?, nothing);
    assert!(practised::answered(&mut c, id, "Nora", (2, 0), true).await?);
    // The same case, one far ahead, another hand's.
    assert!(!practised::answered(&mut c, id, "Nora", (2, 0), true).await?);
    assert!(!practised::answered(&mut c, id, "Nora", (2, 9), true).await?);
    assert!(practised::answered(&mut c, id, "Rafi", (2, 0), false).await?);
    assert!(practised::answered(&mut c, id, "Nora", (2, 1), false).await?);
    let [first, second, third] = practised::of(&mut c, id, "Nora").await?;
    assert_eq!((second.next_case, second.answered, second.hit), (2, 2, 1));
    assert_eq!((first.answered, third.answered), (0, 0));
    drop(c);
    pool.close().await;
    db.close().await
}
