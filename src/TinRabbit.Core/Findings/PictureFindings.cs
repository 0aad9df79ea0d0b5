using TinRabbit.Core.Pages;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Findings;

/// <summary>The alt texts of a page's pictures.</summary>
internal static class PictureFindings
{
    public static IEnumerable<Finding> Of(ListingToCheck draft, PageToCheck page, RichBody body)
    {
        var alts = draft.Pictures;
        var most = page.Threshold(draft.Platform, "altMax");
        var picks = draft.Terms.Select(t => Tokens.Key(t.Text)).ToHashSet(StringComparer.Ordinal);
        var least = page.Threshold(draft.Platform, "pictureMin");
        for (var i = 0; i < page.PictureSides.Count; i++)
            if (page.PictureSides[i] is { } side && side < least)
                yield return About("picture-small", i, 0, PageTexts.PictureSmall(i + 1, side, least));
        for (var i = 0; i < alts.Count; i++)
        {
            // A locked text is there for something else than to be read.
            if (draft.LockedPictures.Contains(i))
                continue;
            var (alt, number) = (alts[i].Trim(), i + 1);
            if (alt.Length == 0)
                yield return About("alt-missing", i, 0, PageTexts.AltMissing(number));
            if (TextLength.Of(alt, Unit.Characters) is var characters && characters > most)
                yield return About("alt-long", i, alt.Length, PageTexts.AltLong(number, characters, most));
            if (AltTexts.OpeningOf(alt) is { } opening)
                yield return About("alt-opening", i, opening, PageTexts.AltOpening(number)) with
                {
                    Fix = new(
                        PageTexts.RemoveOpening,
                        ListingToCheck.PicturesKey,
                        With(alts, i, Capitals.First(alt[opening..].TrimStart()))
                    ),
                };
            if (AltTexts.AdvertIn(alts[i]) is { } advert)
                yield return About(
                    "alt-advert",
                    i,
                    advert.Length,
                    PageTexts.AltAdvert(number, alts[i].Substring(advert.Start, advert.Length))
                ) with
                {
                    Start = advert.Start,
                };
            if (AltTexts.IsStrung(alt, picks))
                yield return About("alt-strung", i, alt.Length, PageTexts.AltStrung(number));
        }

        var field = draft.Role("body")?.Key ?? "";
        for (var i = 0; i < body.Pictures.Count; i++)
            if (body.Pictures[i].Alt.Length == 0)
                yield return new("alt-missing", Level.Should, field, 0, 0, 0, PageTexts.AltMissing(i + 1)) { Subject = $"body {i}" };
        if (alts.Count == 0 && body.Pictures.Count == 0)
            yield return new("no-picture", Level.Should, field, 0, 0, 0, PageTexts.NoPicture);
        if (alts.Count > 1 && alts[0].Trim().Length > 0 && alts.Select(Tokens.Key).Distinct().Count() == 1)
            yield return About("alt-same", 0, 0, PageTexts.AltSame(alts.Count));
        if (
            draft.Lead is { } lead
            && alts.Count > 0
            && !alts.Concat(body.Pictures.Select(p => p.Alt)).Any(a => PageFindings.Holds(draft, a, lead))
        )
            yield return About("alt-lead", 0, 0, PageTexts.AltLead(lead)) with
            {
                Fix = draft.LockedPictures.Contains(0)
                    ? null
                    : new(PageTexts.LeadIntoAlt, ListingToCheck.PicturesKey, With(alts, 0, Joined(alts[0].Trim(), lead))),
            };
    }

    // An alt text begins with what it shows; the lead comes near its front.
    private static string Joined(string alt, string lead) => AltTexts.WithLead(alt, lead);

    private static FieldValue.Items With(IReadOnlyList<string> alts, int picture, string text) =>
        new([.. alts.Select((a, i) => i == picture ? text : a)]);

    private static Finding About(string id, int picture, int length, string why) =>
        new(id, Level.Should, ListingToCheck.PicturesKey, picture, 0, length, why);
}
