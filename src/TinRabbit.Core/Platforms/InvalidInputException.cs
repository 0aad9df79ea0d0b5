namespace TinRabbit.Core.Platforms;

/// <summary>Thrown when a document is not what its format says; names every key that is wrong.</summary>
public sealed class InvalidInputException(IReadOnlyList<Problem> problems)
    : Exception(string.Join(" ", problems.Select(p => $"{p.Path}: {p.Message}")))
{
    /// <summary>What is wrong, each with its key.</summary>
    public IReadOnlyList<Problem> Problems { get; } = problems;
}
