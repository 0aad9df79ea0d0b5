using Microsoft.Extensions.Caching.Memory;

namespace TinRabbit.Server.Listings;

/// <summary>Platforms by their stored profiles. A profile is read once, so that the same one is the very same object everywhere.</summary>
internal static class Profiles
{
    // A shop has some dozens; more are read again when they are asked for.
    private static readonly MemoryCache Cache = new(new MemoryCacheOptions { SizeLimit = 256 });

    /// <summary>The platform of a stored profile.</summary>
    public static Platform Read(string profile) =>
        Cache.GetOrCreate(
            profile,
            entry =>
            {
                entry.Size = 1;
                return PlatformJson.Read(profile);
            }
        )!;

    /// <summary>A platform as it is stored.</summary>
    public static string Write(Platform platform) => PlatformJson.Write(platform).ToJsonString(ListingText.Format);
}
