namespace TinRabbit.Server.Storage;

/// <summary>A row that the checks of pages are made from: a change of one makes the scores of pages old (<see cref="DataVersion"/>).</summary>
public interface IOfPages;
