using TinRabbit.Bench;

// Measures speed and size: all of it, or only what is named. Figures are reported, never asserted.
var named = args.Length == 0 ? ["match", "keys", "start", "shelf", "fill", "moves", "listings", "pages", "watch"] : args;
foreach (var name in named)
    switch (name.Split('=')[0])
    {
        case "fill":
            // fill=5 gives the solver five seconds for each instance.
            FillBench.Report(
                name.Split('=') is [_, var seconds] ? double.Parse(seconds, System.Globalization.CultureInfo.InvariantCulture) : 60
            );
            break;
        case "match":
            MatchBench.Report();
            break;
        case "keys":
            KeysBench.Report();
            break;
        case "start":
            StartBench.Report();
            break;
        case "shelf":
            ShelfBench.Report();
            break;
        case "moves":
            MovesBench.Report();
            break;
        case "listings":
            await ListingsBench.Report();
            break;
        case "pages":
            await PagesBench.Report();
            break;
        case "watch":
            await WatchBench.Report();
            break;
        case "kill":
            // kill=20 makes twenty rounds.
            await KillBench.Report(
                name.Split('=') is [_, var rounds] ? int.Parse(rounds, System.Globalization.CultureInfo.InvariantCulture) : 200
            );
            break;
        case "fuzz":
            // fuzz=500 asks each endpoint five hundred times.
            await FuzzBench.Report(
                name.Split('=') is [_, var times] ? int.Parse(times, System.Globalization.CultureInfo.InvariantCulture) : 100
            );
            break;
        case "hostile":
            await HostileBench.Report();
            break;
        default:
            Console.Error.WriteLine(
                $"There is no measurement {name}; there are match, keys, start, shelf, fill, moves, listings, pages, watch, kill, fuzz and hostile."
            );
            return 1;
    }

return 0;
