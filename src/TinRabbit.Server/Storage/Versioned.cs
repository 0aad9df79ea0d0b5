namespace TinRabbit.Server.Storage;

/// <summary>The one way in which what a person writes is saved, so that two windows notice each other.</summary>
internal static class Versioned
{
    /// <summary>Makes a change that was written from one revision, unless somebody else saved something else meanwhile.</summary>
    /// <param name="now">The revision that is stored.</param>
    /// <param name="from">The revision that it was written from; null to write over whatever is there.</param>
    /// <param name="isSame">Whether it is stored already: an answer that was lost on its way is asked for again like this.</param>
    /// <param name="change">Makes the change, and moves the revision on.</param>
    public static async Task<SaveResult> Apply(int now, int? from, bool isSame, Func<Task> change)
    {
        var result = Decide(now, from, isSame);
        if (result is SaveResult.Saved)
            await change();
        return result;
    }

    /// <inheritdoc cref="Apply(int, int?, bool, Func{Task})"/>
    public static SaveResult Apply(int now, int? from, bool isSame, Action change)
    {
        var result = Decide(now, from, isSame);
        if (result is SaveResult.Saved)
            change();
        return result;
    }

    private static SaveResult Decide(int now, int? from, bool isSame) =>
        isSame ? SaveResult.Unchanged
        : from is { } revision && revision != now ? SaveResult.Conflict
        : SaveResult.Saved;
}
