namespace TinRabbit.Server.Features.Next;

/// <summary>What the line of what comes next says in the history.</summary>
internal static class NextMessages
{
    public static string PutOff(int days) => $"Put off what was to be done next, for {days} days";
}
