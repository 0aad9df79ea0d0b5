namespace TinRabbit.Server.Requests;

/// <summary>What a request names is not there: the answer is 404.</summary>
internal sealed class NotThereException() : Exception("This is not there. It may have been deleted meanwhile.");
