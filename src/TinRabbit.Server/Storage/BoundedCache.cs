using Microsoft.Extensions.Caching.Memory;

namespace TinRabbit.Server.Storage;

/// <summary>A bounded number of values that can be made again. When it is full, those used least recently go. What a value was made from is in its key or beside it: mostly a <see cref="DataVersion"/>.</summary>
/// <param name="most">How many are kept.</param>
public sealed class BoundedCache<TKey, TValue>(int most) : IDisposable
    where TKey : notnull
{
    // A fifth goes at once, so that a full cache does not look for the oldest at each addition.
    private readonly MemoryCache _cache = new(new MemoryCacheOptions { SizeLimit = most, CompactionPercentage = 0.2 });

    /// <summary>A value that is kept.</summary>
    public bool TryGet(TKey key, out TValue value)
    {
        var isKept = _cache.TryGetValue(key, out TValue? kept);
        value = kept!;
        return isKept;
    }

    /// <summary>Keeps a value. Where it is full, room is made for the next one, and this one is not kept.</summary>
    public TValue Set(TKey key, TValue value)
    {
        using var entry = _cache.CreateEntry(key);
        (entry.Value, entry.Size) = (value, 1);
        return value;
    }

    /// <summary>Forgets the values of some keys.</summary>
    public void Remove(Func<TKey, bool> where)
    {
        foreach (var key in _cache.Keys.OfType<TKey>().Where(where).ToList())
            _cache.Remove(key);
    }

    /// <inheritdoc/>
    public void Dispose() => _cache.Dispose();
}
