namespace TinRabbit.Server.Files.Documents;

/// <summary>Which results of a term were judged to be like a product.</summary>
/// <param name="Judged">Whether each is, by the market's own name for it, or by its title.</param>
public sealed record DocumentLikeness(
    string Market,
    [Term] string Term,
    [MaxLength(Bounds.JudgedResults)] IReadOnlyDictionary<string, bool> Judged
);
