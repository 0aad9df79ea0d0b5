namespace TinRabbit.Server.Features.Platforms;

/// <summary>Changes to platforms, as the toast and History name them.</summary>
internal static class PlatformMessages
{
    public static string Added(string platform) => $"Added the platform “{platform}”";

    public static string Changed(string platform) => $"Changed the platform “{platform}”";
}
