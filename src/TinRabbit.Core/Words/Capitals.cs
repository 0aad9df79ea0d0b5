namespace TinRabbit.Core.Words;

/// <summary>Capital letters.</summary>
public static class Capitals
{
    /// <summary>A text with its first character as a capital.</summary>
    public static string First(string text) => text.Length == 0 ? text : char.ToUpperInvariant(text[0]) + text[1..];
}
