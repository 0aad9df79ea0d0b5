namespace TinRabbit.Server.Hosting;

/// <summary>What became of a password that was given.</summary>
internal enum PasswordAnswer
{
    Right,
    Wrong,

    /// <summary>Too many wrong ones: none is looked at for a while.</summary>
    LockedOut,
}
