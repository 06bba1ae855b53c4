//! Formulas and their versions.

use super::*;

#[tokio::test]
async fn versions_are_added_and_never_overwritten() -> Result<()> {
    let (db, pool, here) = open().await?;
    let mut c = pool.acquire().await?;
    let first = SHEET.0.formula.clone();
    let second = Formula {
        hydration_percent: 63.0,
        ..first.clone()
    };
    let new = version("Halt round", &first, None);
    let (id, n) = done(formula::keep(&mut c, here, &new, at(NOW)).await?);
    assert_eq!(n, 1);
    // The same form again is the same version.
    assert_eq!(
        done(formula::keep(&mut c, here, &new, at(NOW)).await?),
        (id, 1)
    );
    assert_eq!(
        done(
            formula::keep(
                &mut c,
                here,
                &version("Halt round", &second, Some((id, 1))),
                at(NOW)
            )
            .await?
        ),
        (id, 2)
    );
    // Somebody who still looks at version 1 is told, and nothing is written.
    let late = formula::keep(
        &mut c,
        here,
        &version("Other name", &first, Some((id, 1))),
        at(NOW),
    )
    .await?;
    assert_eq!(late, KeptFormula::Stale { head: 2 });
    let all = formula::versions(&mut c, here, id).await?;
    assert_eq!(all.iter().map(|v| v.number).collect::<Vec<_>>(), [2, 1]);
    assert_eq!((&all[0].formula, &all[1].formula), (&second, &first));
    let head = formula::version(&mut c, here, id, None).await?.unwrap();
    assert_eq!((head.number, head.name.as_str()), (2, "Halt round"));
    assert!(formula::version(&mut c, here, id, Some(9)).await?.is_none());
    // A batch points to the version that it was made from.
    let kept = entered::keep(
        &mut c,
        here,
        &NewBatch {
            from: Some(all[1].id),
            ..sheet("From one")
        },
        at(NOW),
    )
    .await?;
    let b = batch::by_code(&mut c, here, &kept, &BatchCache::default())
        .await?
        .unwrap();
    assert_eq!(
        batch::made_from(&mut c, here, b.id).await?,
        Some((id.0, 1, "Halt round".into()))
    );
    drop(c);
    pool.close().await;
    db.close().await
}

#[tokio::test]
async fn the_library_is_searched_by_letters_and_shows_what_was_put_away_apart() -> Result<()> {
    let (db, pool, here) = open().await?;
    let mut c = pool.acquire().await?;
    let f = SHEET.0.formula.clone();
    let (id, _) =
        done(formula::keep(&mut c, here, &version("100% spelt", &f, None), at(NOW)).await?);
    formula::keep(&mut c, here, &version("Halt_round", &f, None), at(NOW)).await?;
    let names =
        async |c: &mut store::MySqlConnection, text: &str, archived: bool| -> Result<Vec<String>> {
            let find = Find {
                text: text.into(),
                archived,
                most: 50,
                ..Find::default()
            };
            Ok(formula::list(c, here, &find)
                .await?
                .listed
                .into_iter()
                .map(|l| l.name)
                .collect())
        };
    assert_eq!(names(&mut c, "", false).await?.len(), 2);
    // A per cent sign and an underscore are letters.
    assert_eq!(names(&mut c, "0%", false).await?, ["100% spelt"]);
    assert_eq!(names(&mut c, "t_r", false).await?, ["Halt_round"]);
    assert_eq!(names(&mut c, "POINT MORE", false).await?.len(), 2);
    assert!(names(&mut c, "' OR 1=1 --", false).await?.is_empty());
    formula::archive(&mut c, here, id, Some(at(NOW))).await?;
    assert_eq!(names(&mut c, "", false).await?, ["Halt_round"]);
    assert_eq!(names(&mut c, "", true).await?, ["100% spelt"]);
    assert!(formula::is_archived(&mut c, here, id).await?);
    formula::archive(&mut c, here, id, None).await?;
    assert_eq!(names(&mut c, "", false).await?.len(), 2);
    // Another kitchen sees nothing of it.
    let other = add_kitchen(&pool, "Next door").await?;
    assert!(formula::list(&mut c, other, &Find::default()).await?.in_all == 0);
    assert!(formula::version(&mut c, other, id, None).await?.is_none());
    drop(c);
    pool.close().await;
    db.close().await
}
