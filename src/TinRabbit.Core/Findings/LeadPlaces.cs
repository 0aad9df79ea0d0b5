using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Pages;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Findings;

/// <summary>Ticks the places where a lead belongs.</summary>
internal static class LeadPlaces
{
    private static readonly (string Role, string Place)[] Roles =
    [
        ("title", "title"),
        ("slug", "address"),
        ("meta", "description"),
        ("heading", "heading"),
        ("description", "description"),
        ("tags", "tags"),
    ];

    /// <summary>The places that the platform has, in the order in which a reader meets them; none without a lead.</summary>
    public static IReadOnlyList<LeadPlace> Of(ListingToCheck draft)
    {
        if (draft.Lead is not { } lead)
            return [];
        var places = new List<LeadPlace>();
        foreach (var (role, place) in Roles)
            if (draft.Role(role) is { } field)
                places.Add(new(place, field.Key, field.Label, Holds(draft, field, lead)));
        if (draft.Role("body") is { } body)
        {
            if (draft.Page is null)
                places.Add(new("description", body.Key, body.Label, Holds(draft, body, lead)));
            else
                places.Add(new("paragraph", body.Key, "First paragraph", FirstParagraphHolds(draft, body, lead)));
        }

        if (draft.Pictures.Count > 0 || draft.Page is not null)
            places.Add(new("alt", ListingToCheck.PicturesKey, "Alt text", draft.Pictures.Any(a => PageFindings.Holds(draft, a, lead))));
        return places;
    }

    private static bool Holds(ListingToCheck draft, Field field, string lead) =>
        field.Role switch
        {
            "slug" => Slugs.Of(lead, _ => false).Split('-') is var words && words.All(draft.TextOf(field).Split('-').Contains),
            "tags" => draft.Texts(field).Any(t => IsPhraseIn(draft, t, lead)),
            "heading" => PageFindings.Holds(draft, draft.TextOf(field), lead),
            _ => IsPhraseIn(draft, draft.TextOf(field), lead),
        };

    private static bool FirstParagraphHolds(ListingToCheck draft, Field body, string lead) =>
        draft.Copy.GetValueOrDefault(body.Key) is FieldValue.Text text
        && RichBody.Read(text.Value).FirstParagraph is { } first
        && IsPhraseIn(draft, first, lead);

    private static bool IsPhraseIn(ListingToCheck draft, string text, string lead) =>
        Weigher.Weigh(draft.Platform.OfOneText(), Platform.CopyOf(text), [new(lead)], default).Terms[0].Grade
            is Grade.Whole
                or Grade.Inflected;
}
