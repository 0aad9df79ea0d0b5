using Microsoft.AspNetCore.Identity;

namespace TinRabbit.Server.Hosting;

/// <summary>The owner's password, hashed by ASP.NET Core Identity's hasher in a file that only the owner can read.</summary>
/// <param name="file">Where it is kept.</param>
/// <param name="clock">Tells when a lock-out ends.</param>
internal sealed class OwnerPassword(string file, TimeProvider clock)
{
    /// <summary>The fewest characters of a password.</summary>
    public const int Shortest = 12;

    /// <summary>The most characters of a password.</summary>
    public const int Longest = 200;

    private const int MostFailures = 5;
    private static readonly TimeSpan LockOut = TimeSpan.FromMinutes(15);
    private static readonly PasswordHasher<OwnerPassword> Hasher = new();
    private readonly Lock _lock = new();

    /// <summary>Whether there is one.</summary>
    public bool IsSet => File.Exists(file);

    /// <summary>Sets it.</summary>
    /// <exception cref="StartProblem">It is too short or too long.</exception>
    public void Set(string password)
    {
        if (password.Length is < Shortest or > Longest)
            throw new StartProblem($"The owner's password has {Shortest} to {Longest} characters.");
        lock (_lock)
            Save(new(Hasher.HashPassword(this, password), 0, null));
    }

    /// <summary>Compares a password with the owner's. After five wrong ones in a row none is looked at for a quarter of an hour.</summary>
    public PasswordAnswer Check(string password)
    {
        lock (_lock)
        {
            if (!IsSet)
                return PasswordAnswer.Wrong;
            var saved = JsonSerializer.Deserialize<Saved>(File.ReadAllText(file))!;
            var now = clock.GetUtcNow();
            if (saved.LockedUntil > now)
                return PasswordAnswer.LockedOut;
            if (password.Length <= Longest && Hasher.VerifyHashedPassword(this, saved.Hash, password) != PasswordVerificationResult.Failed)
            {
                if (saved.Failures > 0)
                    Save(saved with { Failures = 0, LockedUntil = null });
                return PasswordAnswer.Right;
            }

            var failures = saved.Failures + 1;
            Save(
                failures < MostFailures
                    ? saved with
                    {
                        Failures = failures,
                        LockedUntil = null,
                    }
                    : saved with
                    {
                        Failures = 0,
                        LockedUntil = now + LockOut,
                    }
            );
            return PasswordAnswer.Wrong;
        }
    }

    private void Save(Saved saved)
    {
        var next = file + ".new";
        File.WriteAllText(next, JsonSerializer.Serialize(saved));
        if (!OperatingSystem.IsWindows())
            File.SetUnixFileMode(next, UnixFileMode.UserRead | UnixFileMode.UserWrite);
        File.Move(next, file, overwrite: true);
    }

    private sealed record Saved(string Hash, int Failures, DateTimeOffset? LockedUntil);
}
