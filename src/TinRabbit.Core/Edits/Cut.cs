namespace TinRabbit.Core.Edits;

/// <summary>Cuts a stretch out of a text.</summary>
public static class Cut
{
    /// <summary>The text without the stretch, and without the doubled spaces and commas that it leaves.</summary>
    public static string Of(string text, int start, int length)
    {
        var (before, after) = (text[..start].TrimEnd(' '), text[(start + length)..].TrimStart(' '));
        if (after.StartsWith(',') && (before.Length == 0 || before.EndsWith(',')))
            after = after[1..].TrimStart(' ');
        if (after.Length == 0)
            return before.TrimEnd(',', ' ');
        return before.Length == 0 ? after
            : ",.;:!?\n".Contains(after[0]) ? before + after
            : $"{before} {after}";
    }
}
