namespace TinRabbit.Server.Features.Weigh;

/// <summary>Changes to rivals and reviews, as the toast and History name them.</summary>
internal static class WeighMessages
{
    public static string AddedRivals(IReadOnlyList<string> shops) =>
        $"Saved {(shops.Count == 1 ? $"“{shops[0]}” as a rival" : $"{shops.Count:#,0} rivals")}";

    public static string RemovedRival(string shop) => $"Removed the rival “{shop}”";

    public static string AddedReviews(int count) => $"Added {count:#,0} {(count == 1 ? "review" : "reviews")}";

    public static string RemovedReviews(int count) => $"Removed {count:#,0} {(count == 1 ? "review" : "reviews")}";
}
