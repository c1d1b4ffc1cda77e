@echo off
rem Runs Rombix from its sources on Windows: builds what is not built yet, and starts it with a JDK 25 or newer.
setlocal
set "home=%~dp0"
set "built=%home%app\target\launch.in"
set "args=%home%app\target\launch.args"
set "java=java"
if defined JAVA_HOME set "java=%JAVA_HOME%\bin\java"
"%java%" -version >nul 2>&1 || (
    echo Rombix needs a JDK 25 or newer and found none. Install one, or set JAVA_HOME to it. 1>&2
    exit /b 1
)
rem Built already, and no source newer than that?
set "stale=1"
if exist "%built%" (
    set "stale="
    for /f "delims=" %%f in ('powershell -NoProfile -Command "$t=(Get-Item $env:built).LastWriteTime; Get-ChildItem -Recurse -File (Join-Path $env:home '*\src\main'),(Join-Path $env:home 'demo') | Where-Object LastWriteTime -gt $t | Select-Object -First 1 -ExpandProperty FullName"') do set "stale=1"
)
if defined stale (
    echo Building Rombix; this is done once. 1>&2
    pushd "%home%"
    call mvn -q -B -DskipTests package || (popd & echo The build failed. 1>&2 & exit /b 1)
    popd
)
rem The folder that this script stands in now: a clone may have been moved, or copied.
powershell -NoProfile -Command "(Get-Content -Raw $env:built).Replace('@home@', $env:home.TrimEnd('\').Replace('\', '/')) | Set-Content -NoNewline $env:args"
"%java%" @"%args%" %ROMBIX_JAVA_OPTS% rombix.app.Main %*
exit /b %errorlevel%
