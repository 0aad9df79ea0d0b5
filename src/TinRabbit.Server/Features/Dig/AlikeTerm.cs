using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Dig;

/// <summary>A word related to a word of a term.</summary>
/// <param name="Part">noun, verb, adjective or adverb.</param>
/// <param name="Term">The term with this word in the place of the other.</param>
/// <param name="Key">Its words.</param>
/// <param name="Numbers">The numbers of that term in the market.</param>
/// <param name="IsUsed">
/// Whether shoppers search for any term of this meaning. Where nobody knows what they search for, the likeliest meaning counts as used.
/// </param>
public sealed record AlikeTerm(string Word, string Part, Relation Likeness, string Term, string Key, Measured Numbers, bool IsUsed);
