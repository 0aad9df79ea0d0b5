namespace TinRabbit.Server.Undo;

/// <summary>Changes of any kind, as the toast and History name them.</summary>
internal static class ChangeMessages
{
    public static string Renamed(string kind, string before, string now) =>
        before.Length == 0 ? $"Named the {kind} “{now}”"
        : now.Length == 0 ? $"Removed the name “{before}” of the {kind}"
        : $"Renamed {kind} “{before}” to “{now}”";

    public static string Deleted(string kind, string name) => $"Deleted {kind}{(name.Length > 0 ? $" “{name}”" : "")}";

    public static string Duplicated(string kind, string name) => $"Duplicated {kind} “{name}”";
}
