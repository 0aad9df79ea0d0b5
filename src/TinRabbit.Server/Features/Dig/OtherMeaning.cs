namespace TinRabbit.Server.Features.Dig;

/// <summary>A country whose results for a term share few words with those here.</summary>
/// <param name="Share">The share of the words of the titles there that titles here have too, 0–1.</param>
public sealed record OtherMeaning(string CountryName, double Share);
