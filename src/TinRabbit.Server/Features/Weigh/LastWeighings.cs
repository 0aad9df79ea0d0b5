using TinRabbit.Server.Picks;

namespace TinRabbit.Server.Features.Weigh;

/// <summary>Remembers the last weighings, so that the one after says only what changed: at most keys a few picks of thousands do.</summary>
public sealed class LastWeighings
{
    private const int Most = 16;

    private readonly LinkedList<Kept> _kept = new();
    private readonly Lock _lock = new();

    /// <summary>What changed since a weighing, and the number under which this one is remembered.</summary>
    /// <param name="since">The weighing that the asker has; null for none.</param>
    /// <param name="picks">The picks that were weighed for.</param>
    /// <param name="weights">All weights, as <paramref name="picks"/> has them; those that are as they were are put back.</param>
    /// <returns>The weights that differ, or null when everything must be said: the weighing is not known, or was for other picks.</returns>
    public (string Id, IReadOnlyList<PickWeight>? Changed) Remember(string? since, PreparedPicks picks, PickWeight[] weights)
    {
        var before = Find(since);
        List<PickWeight>? changed = null;
        if (before is not null && ReferenceEquals(before.Picks, picks))
        {
            changed = [];
            for (var i = 0; i < weights.Length; i++)
                if (before.Weights[i].ContentEquals(weights[i]))
                    weights[i] = before.Weights[i];
                else
                    changed.Add(weights[i]);
        }

        var now = new Kept(Guid.NewGuid().ToString("N"), picks, weights);
        lock (_lock)
        {
            _kept.AddFirst(now);
            if (_kept.Count > Most)
                _kept.RemoveLast();
        }

        return (now.Id, changed);
    }

    private Kept? Find(string? id)
    {
        if (id is null)
            return null;
        lock (_lock)
            return _kept.FirstOrDefault(k => k.Id == id);
    }

    private sealed record Kept(string Id, PreparedPicks Picks, PickWeight[] Weights);
}
