namespace TinRabbit.Server.Listings;

/// <summary>Why a platform would refuse a field.</summary>
internal static class LimitMessages
{
    public static string TooLong(string field, int over, Core.Platforms.Unit unit) => $"{field} is {over:#,0} {Unit(unit, over)} too long";

    public static string TooMany(string field, int over) => $"{field} has {over:#,0} too many";

    public static string Empty(string field) => $"{field} is required and empty";

    private static string Unit(Core.Platforms.Unit unit, int count) =>
        count == 1 ? unit.ToString().ToLowerInvariant().TrimEnd('s') : unit.ToString().ToLowerInvariant();
}
