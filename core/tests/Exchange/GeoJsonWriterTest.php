<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Exchange;

use PHPUnit\Framework\TestCase;
use Plinth\Core\Exchange\GeoJson\GeoJsonWriter;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Site\Georeference;
use Plinth\Core\Tests\Outside;
use Plinth\Core\Tests\Plan\Plans;
use Plinth\Core\Tests\Projection\Buildings;

/** GeoJSON as GDAL reads it. */
final class GeoJsonWriterTest extends TestCase
{
    /** @return array<mixed> */
    private static function read(string $json): array
    {
        $file = sys_get_temp_dir().'/plinth-'.getmypid().'.geojson';
        file_put_contents($file, $json);
        $read = Outside::ask('geojson.py', ['file' => $file]);
        unlink($file);

        return $read;
    }

    public function testAPlanLiesInItsReferenceMovedAndTurned(): void
    {
        $storey = Plans::storey(Plans::rectangle(), [new Opening('d', 'south', OpeningKind::Door, 1000.0, 900.0)], [new Room('r', 'Wäsche "A"', '1', new Point(3000.0, 2000.0))]);
        $site = new Contour([new Point(0.0, 0.0), new Point(0.0, 10_000.0), new Point(20_000.0, 10_000.0), new Point(20_000.0, 0.0)]);
        $at = new Georeference('EPSG:25832', 500_000.0, 5_700_000.0, degrees: 90.0);
        $read = self::read(GeoJsonWriter::write(new Plan([$storey]), [$site], $at));
        self::assertSame('25832', $read['epsg']);
        self::assertIsArray($read['features']);
        [$room, , , , , $boundary] = $read['features'];
        self::assertIsArray($room);
        self::assertIsArray($boundary);
        self::assertSame(['room', 'Wäsche "A"', true], [$room[0], $room[1], $room[4]]);
        self::assertEqualsWithDelta(5.8 * 3.8, $room[2], 1e-6);
        // Turned by a quarter to the left: x of the plan runs north, y west.
        self::assertEqualsWithDelta([500_000.0 - 3.9, 500_000.0 - 0.1, 5_700_000.1, 5_700_005.9], $room[3], 1e-6);
        self::assertSame('site', $boundary[0]);
        self::assertEqualsWithDelta(200.0, $boundary[2], 1e-6);
        // The wall with the door is less long by it.
        $south = array_values(array_filter($read['features'], static fn (mixed $f): bool => \is_array($f) && 'wall' === $f[0]));
        self::assertEqualsWithDelta(Derivation::of($storey)->areasMm2['structure'] / 1e6 - 0.18, array_sum(array_column($south, 2)), 1e-3);
    }

    public function testRoomsAndWallsOfRandomBuildingsAreValidAndAsLargeAsTheCores(): void
    {
        for ($seed = 1; $seed <= 30; ++$seed) {
            $plan = Buildings::of($seed);
            $json = GeoJsonWriter::write($plan);
            self::assertStringContainsString('in no geographic reference', $json);
            $read = self::read($json);
            self::assertIsArray($read['features']);
            $rooms = $own = 0.0;
            foreach ($read['features'] as $feature) {
                self::assertIsArray($feature);
                self::assertTrue($feature[4], "seed $seed: GEOS finds it valid");
                self::assertIsFloat($feature[2]);
                $rooms += 'room' === $feature[0] ? $feature[2] : 0.0;
            }
            foreach ($plan->storeys as $storey) {
                foreach (Derivation::of($storey)->regions as $region) {
                    $own += abs(Polygon::area($region->polygon)) - array_sum(array_map(static fn (array $h): float => abs(Polygon::area($h)), $region->holes));
                }
            }
            self::assertEqualsWithDelta($own / 1e6, $rooms, 1e-3, "seed $seed");
        }
    }

    public function testNamesSurviveWhateverIsInThem(): void
    {
        foreach (["O'Hara's \\ room", "two\nlines", '=1+1', 'غرفة', '🛏 bedroom', 'Wäsche “12” </script>'] as $name) {
            $read = self::read(GeoJsonWriter::write(new Plan([Plans::storey(Plans::rectangle(), [], [new Room('r', $name, '1', new Point(3000.0, 2000.0))])])));
            self::assertIsArray($read['features']);
            self::assertIsArray($read['features'][0]);
            self::assertSame($name, $read['features'][0][1]);
        }
    }
}
