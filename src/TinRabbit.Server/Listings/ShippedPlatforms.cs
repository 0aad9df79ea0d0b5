namespace TinRabbit.Server.Listings;

/// <summary>The platform profiles that ship with the program.</summary>
internal static class ShippedPlatforms
{
    /// <summary>Every profile, by file name.</summary>
    public static IReadOnlyList<Platform> All { get; } = [.. Read()];

    private static IEnumerable<Platform> Read()
    {
        var assembly = typeof(ShippedPlatforms).Assembly;
        foreach (var name in assembly.GetManifestResourceNames().Where(n => n.Contains(".Listings.Shipped.")).Order())
        {
            using var reader = new StreamReader(assembly.GetManifestResourceStream(name)!);
            yield return PlatformJson.Read(reader.ReadToEnd());
        }
    }
}
