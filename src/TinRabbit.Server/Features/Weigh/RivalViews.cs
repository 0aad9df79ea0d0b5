using System.ComponentModel.DataAnnotations;
using System.Text.Json;
using System.Text.Json.Nodes;
using TinRabbit.Core;
using TinRabbit.Core.Matching;
using TinRabbit.Server.Requests;
using TinRabbit.Server.Rivals;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>A listing that a market finds, weighed for the product's picks, to be chosen as a rival.</summary>
/// <param name="Id">The market's own name for it; null where it cannot be looked up again.</param>
/// <param name="Grip">0–100, by the fields that the market shows.</param>
/// <param name="Reach">0–100.</param>
/// <param name="IsSaved">Whether it is among the rivals already.</param>
/// <param name="IsMine">Whether it is the shop's own.</param>
public sealed record FoundRival(
    string? Id,
    string Shop,
    string Title,
    decimal Price,
    double Rating,
    int Ratings,
    int? Sales,
    double? Occupancy,
    double Grip,
    double Reach,
    bool IsSaved,
    bool IsMine
);

/// <summary>The market's first results for a term.</summary>
/// <param name="Term">The term; empty where there is no pick to search for.</param>
/// <param name="Found">How many listings the market finds.</param>
public sealed record FoundRivals(string Term, long Found, IReadOnlyList<FoundRival> Results);

/// <summary>Results to save as rivals, by the market's own names.</summary>
public sealed record RivalsRequest(string MarketId, [MaxLength(Bounds.Rivals), EachMaxLength(Bounds.NameLength)] IReadOnlyList<string> Ids);

/// <summary>A rival's listing as the seller pasted it.</summary>
/// <param name="Fields">Its fields on the listing's platform; those that are not known are left out.</param>
/// <param name="RivalId">The rival that it is a newer state of; null for a new one.</param>
public sealed record PastedRival(
    string MarketId,
    [MaxLength(Bounds.NameLength)] string Shop,
    JsonElement Fields,
    decimal? Price = null,
    double? Rating = null,
    int? Ratings = null,
    int? Sales = null,
    int? RivalId = null
);

/// <summary>Which rivals to look up again.</summary>
public sealed record RefreshRequest(string MarketId);

/// <summary>What came of looking rivals up again.</summary>
/// <param name="Seen">Those that the market still has.</param>
/// <param name="Changed">Those of them that differ from when they were saved.</param>
/// <param name="Gone">Those that it no longer has; they stay as they were seen last.</param>
/// <param name="ByHand">Those that did not come from the market.</param>
public sealed record Refreshed(int Seen, int Changed, int Gone, int ByHand);

/// <summary>A difference between two states of a rival's listing.</summary>
/// <param name="What">The field or the figure.</param>
public sealed record RivalChange(string What, string Before, string After);

/// <summary>A rival, weighed for the product's picks.</summary>
/// <param name="IsFromMarket">Whether it can be looked up again.</param>
/// <param name="Seen">The labels of the searched fields that are known of it.</param>
/// <param name="OnlyTheirs">Keys of the picks that it holds and the listing does not, the most worth first.</param>
/// <param name="OnlyMine">Keys of the picks that the listing holds and it does not.</param>
/// <param name="Changes">What changed since it was saved.</param>
public sealed record RivalView(
    int Id,
    string Title,
    string Source,
    bool IsFromMarket,
    DateTime SavedAt,
    DateTime SeenAt,
    double Grip,
    double Reach,
    RivalState State,
    JsonObject Fields,
    IReadOnlyList<string> Seen,
    IReadOnlyList<string> OnlyTheirs,
    IReadOnlyList<string> OnlyMine,
    IReadOnlyList<RivalChange> Changes
);

/// <summary>How one listing holds a pick.</summary>
/// <param name="Rival">The rival's ID; 0 for the shop's own listing.</param>
/// <param name="Grip">0–1.</param>
/// <param name="Field">The label of the field that holds it most firmly; null where several hold it together.</param>
public sealed record HolderView(int Rival, Grade Grade, double Grip, string? Field);

/// <summary>Who holds a pick.</summary>
/// <param name="Holders">The shop's own listing and rivals that hold it, the firmest first.</param>
public sealed record HeldTerm(string Key, IReadOnlyList<HolderView> Holders);

/// <summary>A listing among its rivals.</summary>
/// <param name="Grip">The listing's own, 0–100.</param>
/// <param name="Reach">The listing's own, 0–100.</param>
/// <param name="Rank">Its place by grip, from 1.</param>
/// <param name="NextAbove">The next rival above; null where it is first.</param>
/// <param name="Gap">The grip that it lacks to that rival.</param>
/// <param name="Rivals">The firmest grip first.</param>
public sealed record RivalsView(
    double Grip,
    double Reach,
    int Rank,
    int? NextAbove,
    double? Gap,
    IReadOnlyList<RivalView> Rivals,
    IReadOnlyList<HeldTerm> Terms
);

/// <summary>The moves that bring a listing past a rival, each the best at its time.</summary>
/// <param name="RivalGrip">The grip to pass.</param>
/// <param name="Grip">The grip after all moves.</param>
/// <param name="Fields">The listing's fields after all moves.</param>
public sealed record PassView(double RivalGrip, double Grip, bool Passes, IReadOnlyList<MoveView> Moves, JsonObject Fields);
