namespace TinRabbit.Server.Shelf;

/// <summary>One measurement of a term.</summary>
public sealed class ReadingRow : IWeighed
{
    public int Id { get; set; }
    public int TermId { get; set; }
    public long? Volume { get; set; }

    /// <summary>Where the volume is unknown, the bound that it is known to be below, as in "&lt; 10".</summary>
    public long? VolumeBelow { get; set; }
    public long? Competition { get; set; }
    public long? TitlesHolding { get; set; }
    public decimal? ClickCost { get; set; }

    /// <summary>Its rank among the terms that are searched for, from 1: what a market says that publishes no searches.</summary>
    public int? Popularity { get; set; }

    /// <summary>How often the shop's own listings were clicked after a search for it, in the time that its source covers.</summary>
    public long? Clicks { get; set; }

    /// <summary>Orders that came of those clicks.</summary>
    public long? Orders { get; set; }

    /// <summary>What those orders were worth, in the shop's currency.</summary>
    public decimal? Sales { get; set; }

    /// <summary>Searches by month, oldest first.</summary>
    public IReadOnlyList<int>? Months { get; set; }
    public DateOnly? From { get; set; }
    public required string Source { get; set; }
    public DateTime TakenAt { get; set; }

    /// <summary>The numbers that it did not have and that stay from readings before it; null where there are none.</summary>
    public IReadOnlyList<KeptNumber>? Kept { get; set; }

    /// <summary>Takes over, number by number, what this reading does not have: what is new never hides what is known.</summary>
    public void Keep(ReadingRow old)
    {
        var kept = new List<KeptNumber>();
        if (Take(NumberField.Volume, Volume is null && VolumeBelow is null, old.Volume is not null || old.VolumeBelow is not null))
            (Volume, VolumeBelow) = (old.Volume, old.VolumeBelow);
        if (Take(NumberField.Competition, Competition is null, old.Competition is not null))
            Competition = old.Competition;
        if (Take(NumberField.TitlesHolding, TitlesHolding is null, old.TitlesHolding is not null))
            TitlesHolding = old.TitlesHolding;
        if (Take(NumberField.ClickCost, ClickCost is null, old.ClickCost is not null))
            ClickCost = old.ClickCost;
        if (Take(NumberField.Popularity, Popularity is null, old.Popularity is not null))
            Popularity = old.Popularity;
        if (Take(NumberField.Clicks, Clicks is null, old.Clicks is not null))
            Clicks = old.Clicks;
        if (Take(NumberField.Orders, Orders is null, old.Orders is not null))
            Orders = old.Orders;
        if (Take(NumberField.Sales, Sales is null, old.Sales is not null))
            Sales = old.Sales;
        if (Take(NumberField.Months, Months is null, old.Months is not null))
            (Months, From) = (old.Months, old.From);
        Kept = kept.Count > 0 ? kept : null;

        bool Take(NumberField field, bool isMissing, bool isKnown)
        {
            if (!isMissing || !isKnown)
                return false;
            kept.Add(old.Kept?.FirstOrDefault(k => k.Field == field) ?? new(field, old.Source, old.TakenAt));
            return true;
        }
    }
}
