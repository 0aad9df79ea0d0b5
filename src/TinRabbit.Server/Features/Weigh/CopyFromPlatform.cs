using TinRabbit.Core.Edits;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>Brings the text of a product from another platform, cut to this one's limits.</summary>
internal static class CopyFromPlatform
{
    /// <summary>What each field would become, and what that gains.</summary>
    public static BroughtView Preview(OpenDraft open, ListingRow other, CancellationToken stop)
    {
        var its = other.Platform.Profile;
        var converted = TextConversion.ConvertTo(open.Platform, its, other.Copy.On(its)).On(open.Platform);
        var before = Grip(open, open.Copy, stop);
        var (all, fields) = (new Dictionary<string, FieldValue>(open.Copy), new List<BroughtField>());
        foreach (var field in open.Platform.Fields.Where(CanBring))
        {
            if (!converted.TryGetValue(field.Key, out var value))
                continue;
            var fitted = Fitting.Fit(field, value);
            if ((open.Copy.GetValueOrDefault(field.Key)?.Lines(field.Shape) ?? "") is var mine && mine == fitted.Lines(field.Shape))
                continue;
            all[field.Key] = fitted;
            fields.Add(
                new(
                    field.Key,
                    field.Label,
                    mine,
                    fitted.Lines(field.Shape),
                    CopyJson.WriteValue(fitted),
                    !ReferenceEquals(fitted, value),
                    Grip(open, new Dictionary<string, FieldValue>(open.Copy) { [field.Key] = fitted }, stop) - before
                )
            );
        }

        return new(before, Grip(open, all, stop), fields);
    }

    // Categories and attributes belong to their platform, and an address to its page.
    private static bool CanBring(Field field) =>
        field.Shape is not (FieldShape.Choices or FieldShape.Path) && field.Role is not ("slug" or "alt");

    private static double Grip(OpenDraft open, IReadOnlyDictionary<string, FieldValue> copy, CancellationToken stop) =>
        Weigher.Weigh(open.Picks.Terms, copy, open.Picks.Wanted, stop).Grip;
}
