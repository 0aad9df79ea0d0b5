namespace TinRabbit.Core.Platforms;

/// <summary>A category, with those under it.</summary>
public sealed record Category(string Name, IReadOnlyList<Category> Under)
{
    /// <summary>The category that a path of names leads to from these, or null.</summary>
    public static Category? At(IReadOnlyList<Category> tree, IReadOnlyList<string> path)
    {
        Category? at = null;
        foreach (var name in path)
        {
            at = (at?.Under ?? tree).FirstOrDefault(c => string.Equals(c.Name, name.Trim(), StringComparison.OrdinalIgnoreCase));
            if (at is null)
                return null;
        }

        return at;
    }
}
