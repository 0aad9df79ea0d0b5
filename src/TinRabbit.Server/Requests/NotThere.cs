namespace TinRabbit.Server.Requests;

/// <summary>Takes what was looked up, or answers that it is not there.</summary>
internal static class NotThere
{
    /// <exception cref="NotThereException">Nothing was found.</exception>
    public static async Task<T> OrNotThere<T>(this Task<T?> found)
        where T : class => await found ?? throw new NotThereException();

    /// <exception cref="NotThereException">Nothing was found.</exception>
    public static async Task<T> OrNotThere<T>(this ValueTask<T?> found)
        where T : class => await found ?? throw new NotThereException();
}
