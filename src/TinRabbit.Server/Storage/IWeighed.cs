namespace TinRabbit.Server.Storage;

/// <summary>A row that weighings and scores are made from: a change of one makes them old (<see cref="DataVersion"/>).</summary>
public interface IWeighed;
