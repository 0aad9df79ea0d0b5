using System.Security.Cryptography;
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
    private const int MostAddresses = 10_000;
    private static readonly TimeSpan LockOut = TimeSpan.FromMinutes(15);
    private static readonly PasswordHasher<OwnerPassword> Hasher = new();
    private readonly Lock _lock = new();

    // Wrong passwords by address: whoever guesses from one address does not keep the owner out of another.
    private readonly Dictionary<string, (int Failures, DateTimeOffset Until)> _wrong = new(StringComparer.Ordinal);

    /// <summary>Whether there is one.</summary>
    /// <exception cref="StartProblem">Its file is damaged.</exception>
    public bool IsSet => Read() is not null;

    /// <summary>What a session was begun with; it ends when this changes. Null where there is no password.</summary>
    public string? Stamp => Read()?.Stamp;

    /// <summary>Sets it, and ends every session.</summary>
    /// <exception cref="StartProblem">It is too short or too long.</exception>
    public void Set(string password)
    {
        if (password.Length is < Shortest or > Longest)
            throw new StartProblem($"The owner's password has {Shortest} to {Longest} characters.");
        lock (_lock)
            Save(new(Hasher.HashPassword(this, password), NewStamp()));
    }

    /// <summary>Ends every session.</summary>
    public void EndSessions()
    {
        lock (_lock)
            if (Read() is { } saved)
                Save(saved with { Stamp = NewStamp() });
    }

    /// <summary>Compares a password with the owner's. After five wrong ones from an address none of it is looked at for a quarter of an hour.</summary>
    /// <exception cref="StartProblem">The password's file is damaged.</exception>
    public PasswordAnswer Check(string password, string address)
    {
        lock (_lock)
        {
            if (Read() is not { } saved)
                return PasswordAnswer.Wrong;
            var now = clock.GetUtcNow();
            var (failures, until) = _wrong.GetValueOrDefault(address);
            if (until > now)
            {
                if (failures >= MostFailures)
                    return PasswordAnswer.LockedOut;
            }
            else
                failures = 0;

            if (password.Length <= Longest && Hasher.VerifyHashedPassword(this, saved.Hash, password) != PasswordVerificationResult.Failed)
            {
                _wrong.Remove(address);
                return PasswordAnswer.Right;
            }

            Forget(now);
            _wrong[address] = (failures + 1, now + LockOut);
            return PasswordAnswer.Wrong;
        }
    }

    // Only so many addresses are remembered: those whose time is over go first, then the oldest.
    private void Forget(DateTimeOffset now)
    {
        if (_wrong.Count < MostAddresses)
            return;
        foreach (var (address, _) in _wrong.Where(w => w.Value.Until <= now).ToList())
            _wrong.Remove(address);
        if (_wrong.Count >= MostAddresses)
            _wrong.Remove(_wrong.MinBy(w => w.Value.Until).Key);
    }

    private Saved? Read()
    {
        try
        {
            if (!File.Exists(file))
                return null;
            return JsonSerializer.Deserialize<Saved>(File.ReadAllText(file)) is { Hash.Length: > 0 } saved ? saved : throw Damaged(null);
        }
        catch (JsonException e)
        {
            throw Damaged(e);
        }
    }

    private StartProblem Damaged(Exception? inner) =>
        new($"{file}, which holds the owner's password, is damaged. Set the password again with ./tin password.", inner);

    private static string NewStamp() => Convert.ToHexString(RandomNumberGenerator.GetBytes(16));

    private void Save(Saved saved)
    {
        var next = file + ".new";
        File.WriteAllText(next, JsonSerializer.Serialize(saved));
        if (!OperatingSystem.IsWindows())
            File.SetUnixFileMode(next, UnixFileMode.UserRead | UnixFileMode.UserWrite);
        File.Move(next, file, overwrite: true);
    }

    // A file of an older program has no stamp: its sessions end once.
    private sealed record Saved(string Hash, string Stamp = "");
}
