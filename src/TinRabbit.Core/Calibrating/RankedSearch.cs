using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Calibrating;

/// <summary>A search of a market: the listings that it found, in the market's order, as far as their text is known.</summary>
/// <param name="Term">What was searched for.</param>
/// <param name="Listings">The fields of each listing, the first result first.</param>
public sealed record RankedSearch(string Term, IReadOnlyList<IReadOnlyDictionary<string, FieldValue>> Listings);
