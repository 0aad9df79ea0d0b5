namespace TinRabbit.Server.Features.Shop;

/// <summary>A listing's scores in one market.</summary>
/// <param name="Id">The listing.</param>
/// <param name="Reach">0–100; null without picks.</param>
/// <param name="Grip">0–100; null without picks.</param>
/// <param name="Lost">Searches/mo of picks that cannot find it; null where no volume is known.</param>
/// <param name="LostPicks">Picks that cannot find it.</param>
/// <param name="Basis">What the picks count by.</param>
/// <param name="Picks">Picks that count.</param>
/// <param name="UnknownVolume">Picks whose volume is unknown.</param>
/// <param name="Required">Required findings.</param>
/// <param name="Recommended">Recommended findings that were not dismissed.</param>
/// <param name="Kinds">What kinds of findings these are: the check, with the field's role where it can be about several; and which of title, tags and description are empty.</param>
public sealed record WeighedListing(
    int Id,
    double? Reach,
    double? Grip,
    double? Lost,
    int LostPicks,
    DemandBasis Basis,
    int Picks,
    int UnknownVolume,
    int Required,
    int Recommended,
    IReadOnlyList<string> Kinds
);
