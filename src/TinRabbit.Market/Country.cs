namespace TinRabbit.Market;

/// <summary>A country that a seller sells in.</summary>
/// <param name="Code">ISO 3166-1 alpha-2, lower case.</param>
/// <param name="Name">Its name in English.</param>
/// <param name="Currency">ISO 4217 code of its prices.</param>
public sealed record Country(string Code, string Name, string Currency);
