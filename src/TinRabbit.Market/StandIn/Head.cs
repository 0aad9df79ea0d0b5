namespace TinRabbit.Market.StandIn;

internal sealed record Head(string Text, string[] Groups, double Volume, double[] Countries, string Year);
