using TinRabbit.Server.Journal;

namespace TinRabbit.Server.Features.Watch;

/// <summary>A change note with what happened after it.</summary>
/// <param name="Product">The product's name; null for the whole shop.</param>
/// <param name="Platform">The platform's name; null where it is about more than one listing.</param>
/// <param name="Term">The term it is about; null for none.</param>
/// <param name="IsAutomatic">Whether a send made it.</param>
/// <param name="CountsFrom">When shoppers' searches know of it.</param>
/// <param name="Effects">By measure; none where no figure is known, or where they were not asked for.</param>
public sealed record NoteView(
    int Id,
    int Revision,
    DateTime At,
    DateTime CountsFrom,
    IReadOnlyList<NoteKind> Kinds,
    string Text,
    bool IsAutomatic,
    int? ProductId,
    string? Product,
    int? ListingId,
    string? Platform,
    string? MarketId,
    string? Term,
    IReadOnlyList<EffectView> Effects
);
