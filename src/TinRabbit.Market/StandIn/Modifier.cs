namespace TinRabbit.Market.StandIn;

internal sealed record Modifier(string Text, string Kind, string[] Groups, double Share, bool Before, string[] Countries, string Trend);
