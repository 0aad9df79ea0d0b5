using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace TinRabbit.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Changes : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Picks_ProductId_Key",
                table: "Picks");

            migrationBuilder.DropIndex(
                name: "IX_Listings_ProductId_PlatformId",
                table: "Listings");

            migrationBuilder.DropIndex(
                name: "IX_Filters_Name",
                table: "Filters");

            migrationBuilder.AddColumn<DateTime>(
                name: "DeletedAt",
                table: "Versions",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<DateTime>(
                name: "DeletedAt",
                table: "Takes",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Name",
                table: "Takes",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Currency",
                table: "Shops",
                type: "TEXT",
                nullable: false,
                defaultValue: "USD");

            migrationBuilder.AddColumn<bool>(
                name: "ByHand",
                table: "Sent",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<DateTime>(
                name: "DeletedAt",
                table: "Products",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<DateTime>(
                name: "DeletedAt",
                table: "Platforms",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<DateTime>(
                name: "DeletedAt",
                table: "Picks",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<DateTime>(
                name: "DeletedAt",
                table: "Listings",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<DateTime>(
                name: "DeletedAt",
                table: "Filters",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<DateTime>(
                name: "DeletedAt",
                table: "Digs",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Changes",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ProductId = table.Column<int>(type: "INTEGER", nullable: true),
                    What = table.Column<string>(type: "TEXT", nullable: false),
                    Before = table.Column<string>(type: "TEXT", nullable: false),
                    FactsBefore = table.Column<string>(type: "TEXT", nullable: true),
                    Reversal = table.Column<string>(type: "TEXT", nullable: true),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Changes", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Picks_ProductId_Key",
                table: "Picks",
                columns: new[] { "ProductId", "Key" },
                unique: true,
                filter: "DeletedAt IS NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Listings_ProductId_PlatformId",
                table: "Listings",
                columns: new[] { "ProductId", "PlatformId" },
                unique: true,
                filter: "DeletedAt IS NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Filters_Name",
                table: "Filters",
                column: "Name",
                unique: true,
                filter: "DeletedAt IS NULL");

            migrationBuilder.CreateIndex(
                name: "IX_Changes_ProductId",
                table: "Changes",
                column: "ProductId");

            migrationBuilder.Sql("INSERT INTO Changes(Id, ProductId, What, Before, FactsBefore, At) SELECT Id, ProductId, What, Before, FactsBefore, At FROM PickChanges");
            migrationBuilder.DropTable(
                name: "PickChanges");
            migrationBuilder.Sql("UPDATE Markets SET Norm = json_remove(json_set(Norm, '$.mediumTo', json_extract(Norm, '$.moderateTo')), '$.moderateTo') WHERE json_type(Norm, '$.moderateTo') IS NOT NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Changes");

            migrationBuilder.DropIndex(
                name: "IX_Picks_ProductId_Key",
                table: "Picks");

            migrationBuilder.DropIndex(
                name: "IX_Listings_ProductId_PlatformId",
                table: "Listings");

            migrationBuilder.DropIndex(
                name: "IX_Filters_Name",
                table: "Filters");

            migrationBuilder.DropColumn(
                name: "DeletedAt",
                table: "Versions");

            migrationBuilder.DropColumn(
                name: "DeletedAt",
                table: "Takes");

            migrationBuilder.DropColumn(
                name: "Name",
                table: "Takes");

            migrationBuilder.DropColumn(
                name: "Currency",
                table: "Shops");

            migrationBuilder.DropColumn(
                name: "ByHand",
                table: "Sent");

            migrationBuilder.DropColumn(
                name: "DeletedAt",
                table: "Products");

            migrationBuilder.DropColumn(
                name: "DeletedAt",
                table: "Platforms");

            migrationBuilder.DropColumn(
                name: "DeletedAt",
                table: "Picks");

            migrationBuilder.DropColumn(
                name: "DeletedAt",
                table: "Listings");

            migrationBuilder.DropColumn(
                name: "DeletedAt",
                table: "Filters");

            migrationBuilder.DropColumn(
                name: "DeletedAt",
                table: "Digs");

            migrationBuilder.CreateTable(
                name: "PickChanges",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Before = table.Column<string>(type: "TEXT", nullable: false),
                    FactsBefore = table.Column<string>(type: "TEXT", nullable: true),
                    ProductId = table.Column<int>(type: "INTEGER", nullable: false),
                    What = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PickChanges", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Picks_ProductId_Key",
                table: "Picks",
                columns: new[] { "ProductId", "Key" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Listings_ProductId_PlatformId",
                table: "Listings",
                columns: new[] { "ProductId", "PlatformId" },
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Filters_Name",
                table: "Filters",
                column: "Name",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_PickChanges_ProductId",
                table: "PickChanges",
                column: "ProductId");
        }
    }
}
