using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace TinRabbit.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Watch : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<TimeSpan>(
                name: "ClockAhead",
                table: "Shops",
                type: "TEXT",
                nullable: false,
                defaultValue: new TimeSpan(0, 0, 0, 0, 0));

            migrationBuilder.CreateTable(
                name: "Checks",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    DeletedAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    ListingId = table.Column<int>(type: "INTEGER", nullable: false),
                    MarketId = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Source = table.Column<string>(type: "TEXT", nullable: false),
                    IsDaily = table.Column<bool>(type: "INTEGER", nullable: false),
                    State = table.Column<string>(type: "TEXT", nullable: false),
                    Problem = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Checks", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Checks_Listings_ListingId",
                        column: x => x.ListingId,
                        principalTable: "Listings",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Figures",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    DeletedAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    ListingId = table.Column<int>(type: "INTEGER", nullable: false),
                    MarketId = table.Column<string>(type: "TEXT", nullable: false),
                    Day = table.Column<DateOnly>(type: "TEXT", nullable: false),
                    Views = table.Column<long>(type: "INTEGER", nullable: true),
                    Clicks = table.Column<long>(type: "INTEGER", nullable: true),
                    Sales = table.Column<long>(type: "INTEGER", nullable: true),
                    Source = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Figures", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Figures_Listings_ListingId",
                        column: x => x.ListingId,
                        principalTable: "Listings",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "FollowedTerms",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    DeletedAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    ListingId = table.Column<int>(type: "INTEGER", nullable: false),
                    MarketId = table.Column<string>(type: "TEXT", nullable: false),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_FollowedTerms", x => x.Id);
                    table.ForeignKey(
                        name: "FK_FollowedTerms_Listings_ListingId",
                        column: x => x.ListingId,
                        principalTable: "Listings",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Notes",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    DeletedAt = table.Column<DateTime>(type: "TEXT", nullable: true),
                    ProductId = table.Column<int>(type: "INTEGER", nullable: true),
                    ListingId = table.Column<int>(type: "INTEGER", nullable: true),
                    MarketId = table.Column<string>(type: "TEXT", nullable: true),
                    TermKey = table.Column<string>(type: "TEXT", nullable: true),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    CountsFrom = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Kinds = table.Column<string>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    SentId = table.Column<int>(type: "INTEGER", nullable: true),
                    Revision = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Notes", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Watches",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ListingId = table.Column<int>(type: "INTEGER", nullable: false),
                    MarketId = table.Column<string>(type: "TEXT", nullable: false),
                    ChecksDaily = table.Column<bool>(type: "INTEGER", nullable: false),
                    PageSize = table.Column<int>(type: "INTEGER", nullable: false),
                    CheckedOn = table.Column<DateOnly>(type: "TEXT", nullable: true),
                    FiguresUntil = table.Column<DateOnly>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Watches", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Watches_Listings_ListingId",
                        column: x => x.ListingId,
                        principalTable: "Listings",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            // The terms of a check lie together (no row numbers of its own): two years of them are read for one chart.
            migrationBuilder.Sql(
                """
                CREATE TABLE "Finds" (
                    "CheckId" INTEGER NOT NULL,
                    "TermId" INTEGER NOT NULL,
                    "IsDone" INTEGER NOT NULL,
                    "Found" INTEGER NOT NULL,
                    "Rank" INTEGER NULL,
                    "Results" INTEGER NULL,
                    CONSTRAINT "PK_Finds" PRIMARY KEY ("CheckId", "TermId"),
                    CONSTRAINT "FK_Finds_Checks_CheckId" FOREIGN KEY ("CheckId") REFERENCES "Checks" ("Id") ON DELETE CASCADE,
                    CONSTRAINT "FK_Finds_FollowedTerms_TermId" FOREIGN KEY ("TermId") REFERENCES "FollowedTerms" ("Id") ON DELETE CASCADE
                ) WITHOUT ROWID;
                """
            );

            migrationBuilder.CreateIndex(
                name: "IX_Checks_ListingId_MarketId",
                table: "Checks",
                columns: new[] { "ListingId", "MarketId" });

            migrationBuilder.CreateIndex(
                name: "IX_Figures_ListingId_MarketId_Day",
                table: "Figures",
                columns: new[] { "ListingId", "MarketId", "Day" });

            migrationBuilder.CreateIndex(
                name: "IX_Finds_TermId",
                table: "Finds",
                column: "TermId");

            migrationBuilder.CreateIndex(
                name: "IX_FollowedTerms_ListingId_MarketId_Key",
                table: "FollowedTerms",
                columns: new[] { "ListingId", "MarketId", "Key" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Notes_ListingId",
                table: "Notes",
                column: "ListingId");

            migrationBuilder.CreateIndex(
                name: "IX_Watches_ListingId_MarketId",
                table: "Watches",
                columns: new[] { "ListingId", "MarketId" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Figures");

            migrationBuilder.DropTable(
                name: "Finds");

            migrationBuilder.DropTable(
                name: "Notes");

            migrationBuilder.DropTable(
                name: "Watches");

            migrationBuilder.DropTable(
                name: "Checks");

            migrationBuilder.DropTable(
                name: "FollowedTerms");

            migrationBuilder.DropColumn(
                name: "ClockAhead",
                table: "Shops");
        }
    }
}
