namespace TinRabbit.Core.Platforms;

/// <summary>An attribute of a listing.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Options">The values to choose from; empty where any may be written.</param>
/// <param name="Category">The category that opens it, for itself and all under it; null where every listing has it.</param>
public sealed record AttributeRule(string Name, IReadOnlyList<string> Options, string? Category)
{
    /// <summary>Whether a listing in a category has it.</summary>
    public bool OpenIn(IReadOnlyList<string> path) =>
        Category is null || path.Any(p => string.Equals(p.Trim(), Category, StringComparison.OrdinalIgnoreCase));
}
