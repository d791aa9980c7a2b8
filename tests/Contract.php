<?php

namespace Tests;

use Illuminate\Testing\TestResponse;
use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;
use PHPUnit\Framework\Assert;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\Yaml\Yaml;

/** Holds answers of the API against its published document, docs/formats/openapi.yaml, with a JSON Schema validator. */
final class Contract
{
    /** @var array<string, mixed>|null */
    private static ?array $document = null;

    /** @var array<string, true> calls of which an answer that is no refusal was held against the document */
    private static array $held = [];

    /** @return list<string> calls of the document of which no success was held against it */
    public static function notHeld(): array
    {
        $all = [];
        foreach (self::document()['paths'] as $path => $operations) {
            foreach (array_keys($operations) as $method) {
                $all[] = "{$method} {$path}";
            }
        }

        return array_values(array_diff($all, array_keys(self::$held)));
    }

    /** @return array<string, mixed> */
    private static function document(): array
    {
        return self::$document ??= Yaml::parseFile(dirname(__DIR__).'/docs/formats/openapi.yaml');
    }

    public static function holds(TestResponse $response, string $method, string $path): void
    {
        $operation = self::document()['paths'][$path][$method] ?? null;
        $why = isset($response->baseResponse->exception) ? $response->baseResponse->exception->getMessage() : '';
        Assert::assertLessThan(500, $response->getStatusCode(), "{$method} {$path}: {$why}");
        if ($response->isSuccessful()) {
            self::$held["{$method} {$path}"] = true;
        }
        Assert::assertNotNull($operation, "{$method} {$path} is not in the document");
        $answer = $operation['responses'][(string) $response->getStatusCode()] ?? $operation['responses']['default'];
        $type = explode(';', (string) $response->headers->get('Content-Type'))[0];
        $schema = $answer['content']['application/json']['schema'] ?? null;
        if ($schema === null && isset($answer['content'][$type])) {
            $isFile = $response->baseResponse instanceof BinaryFileResponse;
            Assert::assertNotSame('', $isFile ? $response->streamedContent() : $response->getContent());

            return;
        }
        if ($schema === null) {
            Assert::assertSame('', $response->getContent());

            return;
        }
        $whole = json_decode(
            json_encode(
                [
                    '$schema' => 'https://json-schema.org/draft/2020-12/schema',
                    '$id' => 'https://vestigon.example/api',
                    ...$schema,
                    'components' => self::document()['components'],
                ],
                JSON_THROW_ON_ERROR,
            ),
        );
        $result = (new Validator())->validate(json_decode((string) $response->getContent()), $whole);
        Assert::assertTrue(
            $result->isValid(),
            $result->error() === null
                ? ''
                : json_encode((new ErrorFormatter())->format($result->error()), JSON_PRETTY_PRINT)
                    .substr((string) $response->getContent(), 0, 500),
        );
    }
}
